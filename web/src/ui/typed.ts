import { newKey } from '@yosegi/contract/key';

/** What is typed and not saved yet is kept on this machine, by each tab for itself and for whoever typed it, until it is saved. */

/** The number is the shape of what is kept: what an older version kept is not read. */
const KEPT = 'yosegi.typed.3.';
const TAB = 'yosegi.tab';
/** Kept longer than this, nobody comes back for it; in milliseconds. */
const STALE = 30 * 24 * 3600 * 1000;

interface Kept {
  /** When, in milliseconds since 1970. */
  readonly at: number;
  readonly value: unknown;
}

let own: string | null = null;

/** The id of this tab, which a reload keeps. */
function tab(): string {
  own ??= sessionStorage.getItem(TAB) ?? newKey();
  sessionStorage.setItem(TAB, own);
  return own;
}

let whose = 0;

/** What is typed from now on is this person's, and nobody else sees it. */
export function typedBy(personId: number): void {
  whose = personId;
}

const nameIn = (ofPerson: string) => `${KEPT}${tab()}.${ofPerson}`;
const nameOf = (key: string) => nameIn(`${whose}.${key}`);

export function keep(key: string, value: unknown): void {
  try {
    localStorage.setItem(nameOf(key), JSON.stringify({ at: Date.now(), value } satisfies Kept));
  } catch {
    // A store that is full takes nothing away from what is typed on the screen.
  }
}

export function keptOf<T>(key: string): T | undefined {
  const text = localStorage.getItem(nameOf(key));
  return text === null ? undefined : ((JSON.parse(text) as Kept).value as T);
}

export const forgetKept = (key: string): void => localStorage.removeItem(nameOf(key));

/**
 * Finds out which tabs are still open, by a lock that each holds as long as it lives, and takes over what was typed in
 * the others: a closed tab loses nothing, while two open ones keep a text each.
 */
export async function takeOverClosed(): Promise<void> {
  // Only a page of https or of this machine has them; elsewhere the last tab opened takes all there is.
  const locks = globalThis.navigator?.locks;
  if (!locks) return takeOver(new Set());
  await hold(locks);
  const open = (await locks.query()).held?.map(({ name }) => name ?? '') ?? [];
  takeOver(new Set(open.map((name) => name.slice(LOCK.length))));
}

const LOCK = 'yosegi.tab.';
let holding = false;

/** Holds the lock of this tab. A duplicated tab begins with the id of the other, and takes one of its own. */
async function hold(locks: LockManager): Promise<void> {
  if (holding) return;
  // A page that is just being reloaded needs a moment to let go.
  const signal = AbortSignal.timeout(500);
  const isOurs = await new Promise<boolean>((resolve) => {
    locks
      .request(LOCK + tab(), { signal }, () => {
        resolve(true);
        return new Promise(() => {});
      })
      .catch(() => resolve(false));
  });
  if (isOurs) holding = true;
  else {
    own = newKey();
    await hold(locks);
  }
}

/** Takes over what tabs other than these kept, the newest of each; what is typed here goes before all of it. */
export function takeOver(open: ReadonlySet<string>): void {
  const left = Object.keys(localStorage)
    .filter((name) => name.startsWith(KEPT))
    .map((name) => {
      const [of = '', ...steps] = name.slice(KEPT.length).split('.');
      const text = localStorage.getItem(name) ?? '{}';
      return { name, of, own: nameIn(steps.join('.')), text, at: (JSON.parse(text) as Partial<Kept>).at ?? 0 };
    })
    .filter(({ of }) => of !== tab() && !open.has(of))
    .sort((one, other) => other.at - one.at);
  for (const { name, own, text, at } of left) {
    const isStale = Date.now() - at > STALE;
    if (!isStale && localStorage.getItem(own) !== null) continue;
    localStorage.removeItem(name);
    if (!isStale) localStorage.setItem(own, text);
  }
}
