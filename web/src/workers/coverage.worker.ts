import '../zod.ts';
import type { Snapshot } from '@yosegi/contract';
import { CoverageRows } from '@yosegi/contract/coverage-input';
import { wordsOf } from '@yosegi/contract/problems';
import type { Aside, Completion, World } from '@yosegi/core/coverage';
import { type CompleteAsk, type CoverAnswer, type CoverAsk, completeAnswer, coverAnswer } from './coverAnswer.ts';
import type { ScarceAnswer, ScarceAsk } from './scarceAnswer.ts';
import { type TimeAnswer, type TimeAsk, timeAnswer } from './timeAnswer.ts';

/** What can be asked, and what is answered. */
export interface Asks {
  readonly cover: { readonly ask: CoverAsk; readonly answer: CoverAnswer };
  readonly complete: { readonly ask: CompleteAsk; readonly answer: Completion };
  readonly scarce: { readonly ask: ScarceAsk; readonly answer: ScarceAnswer };
  readonly time: { readonly ask: TimeAsk; readonly answer: TimeAnswer };
}
export type About = keyof Asks;

export type ToWorker =
  | { readonly id: number; readonly load: ArrayBuffer }
  | { readonly [A in About]: { readonly id: number; readonly about: A; readonly ask: Asks[A]['ask'] } }[About];

export type FromWorker =
  | { readonly id: number; readonly answer: Asks[About]['answer'] }
  /** What it has now; null where the changes are to something it does not have. */
  | { readonly id: number; readonly version: string | null }
  | { readonly id: number; readonly refused: string };

let rows: CoverageRows | null = null;
/** Worlds of what is known now, by whether drafts count and what is set aside. */
const worlds = new Map<string, World>();

addEventListener('message', async ({ data }: MessageEvent<ToWorker>) => {
  try {
    postMessage(await answer(data));
  } catch (error) {
    const refused = wordsOf(error);
    if (refused !== undefined) postMessage({ id: data.id, refused } satisfies FromWorker);
    // What nobody foresaw ends the worker, and the page starts another.
    else
      setTimeout(() => {
        throw error;
      });
  }
});

async function answer(data: ToWorker): Promise<FromWorker> {
  const { id } = data;
  if ('load' in data) return { id, version: load(JSON.parse(new TextDecoder().decode(data.load)) as Snapshot) };
  const world = worldFor(data.ask.drafts, data.ask.aside);
  if (data.about === 'time') return { id, answer: timeAnswer(world, data.ask) };
  if (data.about === 'cover') return { id, answer: coverAnswer(world, data.ask) };
  if (data.about === 'complete') return { id, answer: completeAnswer(world, data.ask) };
  // Asked seldom, so it is fetched then.
  const { scarceAnswer } = await import('./scarceAnswer.ts');
  return { id, answer: scarceAnswer(world, data.ask) };
}

function load(snapshot: Snapshot): string | null {
  if (snapshot.since !== null && snapshot.since !== rows?.version) return null;
  if (snapshot.version === rows?.version) return rows.version;
  rows = CoverageRows.of(snapshot, rows);
  worlds.clear();
  return rows.version;
}

function worldFor(drafts: boolean, aside: Aside | null): World {
  if (!rows) throw new Error('asked before anything was loaded');
  const key = `${drafts}${aside}`;
  const known = worlds.get(key);
  if (known) return known;
  const world = aside ? worldFor(drafts, null).without(aside) : rows.world(drafts);
  worlds.set(key, world);
  return world;
}
