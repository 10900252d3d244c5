/** The files of this application that this page was made of so far, however long it has been open. */
const files = new Set<string>();

/** Begins to note them; called once, before anything else is fetched. */
export function noteFetched(): void {
  // The browser's own list is full after a few hundred questions to the server, and takes no file any more.
  new PerformanceObserver((list) => note(list.getEntries())).observe({ type: 'resource', buffered: true });
}

function note(entries: readonly PerformanceEntry[]): void {
  for (const { name } of entries) {
    const { origin, pathname } = new URL(name);
    if (origin === location.origin && !pathname.startsWith('/api/')) files.add(pathname);
  }
}

/** Their paths. */
export const fetchedSoFar = (): string[] => [...files];
