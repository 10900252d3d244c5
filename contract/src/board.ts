import { z } from 'zod';
import { BuildState } from './builds.ts';
import { Day, Decimal, Id, route, Version } from './common.ts';

/** What one person does on one day of one build. */
export const BoardCard = z.object({
  buildId: Id,
  number: z.string(),
  version: Version,
  code: z.string(),
  name: z.string(),
  quantity: Decimal,
  unit: z.string(),
  state: BuildState,
  due: z.string().nullable(),
  /** Whose goods are mended. */
  customer: z.string().nullable(),
  repairId: Id.nullable(),
  personId: Id.nullable(),
  /** When it is taken up; null where nobody said and it is due on no day. */
  day: z.string().nullable(),
  /** The build itself stands here, and moves with it. */
  isWhole: z.boolean(),
  /** Minutes that it still takes. */
  minutes: Decimal,
  /** Lines still to be picked. */
  toPick: z.number().int(),
  /** What keeps it from going on; empty while nothing does. */
  blocks: z.array(
    z.discriminatedUnion('kind', [
      z.object({
        kind: z.literal('part'),
        name: z.string(),
        unit: z.string(),
        short: Decimal,
        comesOn: z.string().nullable(),
      }),
      z.object({ kind: z.literal('held'), name: z.string(), unit: z.string(), quantity: Decimal }),
      z.object({ kind: z.literal('service'), name: z.string(), supplier: z.string(), comesOn: z.string() }),
      z.object({ kind: z.literal('customer'), name: z.string() }),
    ]),
  ),
  tasks: z.array(
    z.object({ id: Id, version: Version, text: z.string(), kind: z.enum(['labour', 'charge']), isDoing: z.boolean() }),
  ),
});
export type BoardCard = z.infer<typeof BoardCard>;

export const Board = z.object({
  today: z.string(),
  /** The next working days. */
  days: z.array(z.string()),
  /** Bench minutes of a working day, for one person. */
  benchMinutes: z.number().int(),
  people: z.array(z.object({ id: Id, name: z.string() })),
  cards: z.array(BoardCard),
});
export type Board = z.infer<typeof Board>;

export const boardRoutes = {
  board: route({
    method: 'GET',
    path: '/api/board',
    tag: 'Build',
    right: 'look',
    summary: 'Work on the bench, by person and day',
    response: Board,
  }),
  moveOnBoard: route({
    method: 'POST',
    path: '/api/board/move',
    tag: 'Build',
    right: 'build',
    summary: 'Give work to a person, and put it on a day',
    body: z.object({
      /** The build itself, with the tasks that go with it; null where only tasks are given away. */
      build: z.object({ id: Id, version: Version }).nullable(),
      tasks: z.array(z.object({ id: Id, version: Version })).max(200),
      personId: Id.nullable(),
      day: Day.nullable(),
    }),
    response: z.object({ moved: z.number().int() }),
  }),
};
