import { useEffect } from 'react';

const OURS = 'Yosegi';

/** Lets the browser's tab, its history and a screen reader name the page by its first heading. */
export function useTitle(pathname: string): void {
  // biome-ignore lint/correctness/useExhaustiveDependencies: another page has another heading
  useEffect(() => {
    const main = document.getElementById('main');
    if (!main) return;
    const name = () => {
      const heading = (main.querySelector('h1') ?? main.querySelector('h2'))?.textContent?.trim();
      const title = heading ? `${heading} · ${OURS}` : OURS;
      if (document.title !== title) document.title = title;
    };
    name();
    const watch = new MutationObserver(name);
    watch.observe(main, { subtree: true, childList: true, characterData: true });
    return () => watch.disconnect();
  }, [pathname]);
}
