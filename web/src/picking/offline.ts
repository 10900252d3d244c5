import { useEffect } from 'react';

/** Addresses of this application that were fetched for the page that is shown. */
const fetched = () =>
  performance
    .getEntriesByType('resource')
    .map(({ name }) => new URL(name))
    .filter(({ origin }) => origin === location.origin)
    .map(({ pathname }) => pathname);

/** The main script bears the name of its build. */
const buildName = () => document.querySelector('script[type=module]')?.getAttribute('src') ?? '';

/** Lets the page open again without a network, as it was seen last. */
export function useOffline(): void {
  useEffect(() => {
    if (!('serviceWorker' in navigator)) return;
    void navigator.serviceWorker.register('/sw.js').then(async () => {
      const { active } = await navigator.serviceWorker.ready;
      active?.postMessage({ build: buildName(), keep: fetched() });
    });
  }, []);
}
