import { newKey } from '@yosegi/contract/key';
import type { z } from 'zod';
import { fromText, toText } from './keptText.ts';

/** What is typed and not saved yet is kept on this machine, by each tab for itself and for whoever typed it, until it is saved. */

/** The number is the shape of what is kept: what an older version kept is not read. */
const KEPT = 'yosegi.typed.4.';
/** What could be read no more is not thrown away, though no screen reads it. */
const ASIDE = 'yosegi.aside.';
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
    localStorage.setItem(nameOf(key), toText({ at: Date.now(), value } satisfies Kept));
  } catch {
    // A store that is full takes nothing away from what is typed on the screen.
  }
}

/**
 * What is kept, as far as it still fits the screen it was typed on.
 * @param shape what it must look like; what does not is put aside, and whoever listens is told
 */
export function keptOf<T>(key: string, shape: z.ZodType<T>): T | undefined {
  const name = nameOf(key);
  const text = localStorage.getItem(name);
  if (text === null) return undefined;
  const read = shape.safeParse(valueIn(text));
  if (read.success) return read.data;
  localStorage.removeItem(name);
  try {
    localStorage.setItem(ASIDE + name, text);
  } catch {
    // A store that is full keeps one copy of nothing; the screen works all the same.
  }
  putAside(key);
  return undefined;
}

export const isKept = (key: string): boolean => localStorage.getItem(nameOf(key)) !== null;

function valueIn(text: string): unknown {
  try {
    return (fromText(text) as Partial<Kept> | null)?.value;
  } catch {
    return undefined;
  }
}

let putAside: (key: string) => void = () => {};

/** Tells of what was typed and can be read no more; once, of whatever screen. */
export function whenPutAside(listen: (key: string) => void): void {
  putAside = listen;
}

export const forgetKept = (key: string): void => localStorage.removeItem(nameOf(key));

/**
 * Finds out which tabs are still open, by a lock that each holds as long as it lives, and takes over what was typed in
 * the others: a closed tab loses nothing, while two open ones keep a text each.
 */
export async function takeOverClosed(): Promise<void> {
  // Only a page of https or of this machine has them; elsewhere the open tabs are asked.
  const locks = globalThis.navigator?.locks;
  if (!locks) return takeOver(await askAround());
  await hold(locks);
  const open = (await locks.query()).held?.map(({ name }) => name ?? '') ?? [];
  takeOver(new Set(open.map((name) => name.slice(LOCK.length))));
}

type Said = { readonly ask: string } | { readonly here: string; readonly to: string };
/** How long an open tab has to answer, in milliseconds. */
const ANSWER_MS = 150;
/** By which the tabs of one browser talk where they have no locks; open as long as this one is. */
let around: BroadcastChannel | null = null;
const told = new Set<string>();
/** Names this page among those that have the same tab's id, as a duplicated one has. */
const page = newKey();

/**
 * Asks which other tabs are open. One that was duplicated from this one, or this one from it, answers with the same id: then
 * this tab takes an id of its own.
 */
async function askAround(): Promise<ReadonlySet<string>> {
  if (typeof BroadcastChannel === 'undefined') return new Set();
  if (!around) {
    around = new BroadcastChannel(TAB);
    around.onmessage = ({ data }: MessageEvent<Said>) => {
      if ('ask' in data) around?.postMessage({ here: tab(), to: data.ask } satisfies Said);
      else if (data.to === page) told.add(data.here);
    };
  }
  told.clear();
  around.postMessage({ ask: page } satisfies Said);
  await new Promise((resolve) => setTimeout(resolve, ANSWER_MS));
  if (told.has(tab())) {
    own = newKey();
    sessionStorage.setItem(TAB, own);
  }
  return new Set(told);
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

function momentOf(text: string): number {
  try {
    return (JSON.parse(text) as Partial<Kept>).at ?? 0;
  } catch {
    return 0;
  }
}

/** Takes over what tabs other than these kept, the newest of each; what is typed here goes before all of it. */
export function takeOver(open: ReadonlySet<string>): void {
  const left = Object.keys(localStorage)
    .filter((name) => name.startsWith(KEPT))
    .map((name) => {
      const [of = '', ...steps] = name.slice(KEPT.length).split('.');
      const text = localStorage.getItem(name) ?? '{}';
      return { name, of, own: nameIn(steps.join('.')), text, at: momentOf(text) };
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
