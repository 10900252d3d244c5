import { useEffect } from 'react';
import { fetchedSoFar } from '../api/fetched.ts';

/** The main script bears the name of its build. */
const buildName = () => document.querySelector('script[type=module]')?.getAttribute('src') ?? '';

/** What a run asks of the server beside itself. */
const ANSWERS = ['/api/session', '/api/stores', '/api/pictures'];

/** Lets the page open again without a network, as it was seen last. */
export function useOffline(runId: number): void {
  useEffect(() => {
    if (!('serviceWorker' in navigator)) return;
    void navigator.serviceWorker.register('/sw.js').then(async () => {
      // What is said at the foot of the screen is fetched when it is first needed, which may be without a network.
      await import('../ui/Notices.tsx').catch(() => {});
      const { active } = await navigator.serviceWorker.ready;
      active?.postMessage({ build: buildName(), keep: [...fetchedSoFar(), ...ANSWERS, `/api/pick-runs/${runId}`] });
    });
  }, [runId]);
}
