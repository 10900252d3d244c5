import type { api, PartItem } from '@yosegi/contract';
import type { Output } from '@yosegi/contract/client';
import { ask } from '../api/client.ts';
import { readPaste } from './paste.ts';

type Match = Output<typeof api.matchItems>[number];
type Known = NonNullable<Match['item']>;

/** A pasted row that nobody knows the item of, until it is placed or left out. */
export interface PastedRow {
  readonly key: string;
  readonly text: string;
  readonly quantity: string;
  readonly likely: readonly PartItem[];
}

/** Pasted rows by whether their item is certain. */
export interface Pasted {
  readonly found: readonly { readonly item: Known; readonly quantity: string }[];
  /** What cannot be told, with what it may be. */
  readonly unknown: readonly { readonly text: string; readonly quantity: string; readonly likely: Match['likely'] }[];
}

/** The most different texts that are looked up at once. */
const MOST = 200;
const cut = (text: string) => text.slice(0, 200);

/** Rows of a spreadsheet with their items looked up: what is certain, and what is kept for mending. */
export async function matchPasted(text: string): Promise<Pasted> {
  const rows = readPaste(text);
  const asked = [...new Set(rows.flatMap((row) => row.texts.map(cut)))].slice(0, MOST);
  const known = new Map((await ask('matchItems', { body: { texts: asked } })).map((match) => [match.text, match]));
  const judged = rows.map(({ texts, quantity }) => {
    const matches = texts.map((one) => known.get(cut(one)));
    const item = matches.find((match) => match?.item)?.item;
    const likely = matches.flatMap((match) => match?.likely ?? []).slice(0, 4);
    return { item, quantity, likely, text: texts.join(' · ') };
  });
  return {
    found: judged.flatMap(({ item, quantity }) => (item ? [{ item, quantity }] : [])),
    unknown: judged.flatMap(({ item, ...row }) => (item ? [] : [row])),
  };
}
