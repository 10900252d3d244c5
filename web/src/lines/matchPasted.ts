import type { api, Item } from '@yosegi/contract';
import type { Output } from '@yosegi/contract/client';
import { ask } from '../api/client.ts';
import { readPaste, type SheetRow } from './paste.ts';

type Match = Output<typeof api.matchItems>[number];
type Known = NonNullable<Match['item']>;

/** What a pasted row says of its item. */
export type Figures = Omit<SheetRow, 'texts'>;

/** A pasted row that nobody knows the item of, until it is placed or left out. */
export interface PastedRow extends Figures {
  readonly key: string;
  readonly text: string;
  readonly likely: readonly Item[];
}

/** Pasted rows by whether their item is certain. */
export interface Pasted {
  readonly found: readonly ({ readonly item: Known } & Figures)[];
  /** What cannot be told, with what it may be. */
  readonly unknown: readonly Omit<PastedRow, 'key'>[];
}

/** The most different texts that are looked up at once. */
const MOST = 200;
const cut = (text: string) => text.slice(0, 200);

/** Rows of a spreadsheet with their items looked up: what is certain, and what is kept for mending. */
export async function matchPasted(text: string): Promise<Pasted> {
  const rows = readPaste(text);
  const asked = [...new Set(rows.flatMap((row) => row.texts.map(cut)))].slice(0, MOST);
  const known = new Map((await ask('matchItems', { body: { texts: asked } })).map((match) => [match.text, match]));
  const judged = rows.map(({ texts, ...figures }) => {
    const matches = texts.map((one) => known.get(cut(one)));
    const item = matches.find((match) => match?.item)?.item;
    const likely = matches.flatMap((match) => match?.likely ?? []).slice(0, 4);
    return { item, ...figures, likely, text: texts.join(' · ') };
  });
  return {
    found: judged.flatMap(({ item, quantity, price, waste }) => (item ? [{ item, quantity, price, waste }] : [])),
    unknown: judged.flatMap(({ item, ...row }) => (item ? [] : [row])),
  };
}
