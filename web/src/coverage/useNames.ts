import type { CoverSource } from '@yosegi/contract';
import type { Source } from '@yosegi/core/demand';
import { useMemo } from 'react';
import { useQuestion } from '../api/client.ts';
import type { TimeAnswer } from '../workers/timeAnswer.ts';

/** Some of an item that comes, named. */
export interface SupplyName {
  readonly number: string;
  readonly from: string;
  readonly to: string | null;
}

/** How people know what a case speaks of. */
export interface Names {
  readonly supply: (kind: string, id: number) => SupplyName;
  readonly source: (source: Source) => CoverSource | undefined;
}

/** Names of what comes of an item, and of everybody an answer speaks of. */
export function useNames(itemId: number, answer: TimeAnswer | null): Names {
  const coming = useQuestion('coming', { params: { id: itemId } }).data;
  const sources = useMemo(() => {
    const all = (answer?.cases ?? []).flatMap(({ time, outcome }) => [
      ...time.days.flatMap(({ takes }) => takes.map(({ source }) => source)),
      ...outcome.moved.map(({ source }) => source),
      ...outcome.late.map(({ source }) => source),
    ]);
    const ids = (kind: string) =>
      [...new Set(all.flatMap((source) => (source.kind === kind ? source.id : [])))]
        .sort((a, b) => a - b)
        .slice(0, 600);
    return { orders: ids('order').join(','), builds: ids('build').join(',') };
  }, [answer]);
  const named = useQuestion('coverSources', { query: sources }, { enabled: answer !== null, keep: true }).data;
  return useMemo(() => {
    const supplies = new Map(
      (coming ?? []).map((row) => [
        `${row.source}${row.lineId}`,
        {
          number: row.number,
          from: row.from,
          to: row.source === 'purchase' ? `/buying/orders/${row.id}` : `/build/${row.id}`,
        },
      ]),
    );
    const bySource = new Map((named ?? []).map((one) => [`${one.kind}${one.id}`, one]));
    return {
      supply: (kind, id) => supplies.get(`${kind}${id}`) ?? { number: 'A draft order', from: '', to: null },
      source: ({ kind, id }) => bySource.get(`${kind}${id}`),
    };
  }, [coming, named]);
}
