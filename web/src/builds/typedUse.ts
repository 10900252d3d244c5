import type { api, BuildDetail } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { formatDecimal, type Quantity } from '@yosegi/core/number';
import { z } from 'zod';
import { NOTHING_TYPED, namedOf, TypedTrack } from '../lines/typed.ts';
import { plainTyped } from '../ui/measuring.ts';

/** What a person says was really used, by line. */
export const TypedUse = z.object({
  actuals: z.map(z.number(), z.string()),
  /** Lots and serials that were named of parts. */
  tracks: z.map(z.number(), TypedTrack),
  /** Why so much or so little of it. */
  why: z.map(z.number(), z.string()),
});
export type TypedUse = z.infer<typeof TypedUse>;

export const NOTHING_USED: TypedUse = { actuals: new Map(), tracks: new Map(), why: new Map() };

/** The same with one line said otherwise. */
export const withUse = <K extends keyof TypedUse>(
  typed: TypedUse,
  kind: K,
  lineId: number,
  value: TypedUse[K] extends ReadonlyMap<number, infer V> ? V : never,
): TypedUse => ({ ...typed, [kind]: new Map(typed[kind] as ReadonlyMap<number, unknown>).set(lineId, value) });

/** The lines that are sent, in their order. */
export const usedIds = ({ actuals, tracks, why }: TypedUse): number[] => [
  ...new Set([...actuals.keys(), ...tracks.keys(), ...why.keys()]),
];

/** What was used as the wire takes it; what was not typed goes as it was reckoned. */
export const usedLines = (
  build: BuildDetail,
  typed: TypedUse,
  reckoned: ReadonlyMap<number, Quantity>,
): Input<typeof api.finish>['body']['lines'] =>
  usedIds(typed).map((lineId) => {
    const item = build.lines.find((line) => line.id === lineId)?.item ?? undefined;
    const said = typed.actuals.get(lineId);
    const actual = said === undefined ? formatDecimal(reckoned.get(lineId) ?? 0) : plainTyped(said, item);
    const because = typed.why.get(lineId)?.trim() ?? '';
    return { lineId, actual, because, ...(item ? namedOf(item, typed.tracks.get(lineId) ?? NOTHING_TYPED) : {}) };
  });
