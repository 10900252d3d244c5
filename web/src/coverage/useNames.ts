import type { CoverSource } from '@yosegi/contract';
import { type Change, isOfCase } from '@yosegi/core/coverage';
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

const THIS_BUILD = 'The build of this case';

/** How people know what a case speaks of. */
export interface Names {
  readonly supply: (kind: string, id: number) => SupplyName;
  readonly source: (source: Source) => CoverSource | undefined;
}

/**
 * Names of what comes of an item, and of everybody an answer speaks of.
 * @param itemId null where changes alone speak of what comes
 */
export function useNames(itemId: number | null, answer: TimeAnswer | null, changes: readonly Change[]): Names {
  const coming = useQuestion('coming', { params: { id: itemId ?? 0 } }, { enabled: itemId !== null }).data;
  const sources = useMemo(() => {
    const all = (answer?.cases ?? []).flatMap(({ time, outcome }) => [
      ...time.days.flatMap(({ takes }) => takes.map(({ source }) => source)),
      ...outcome.moved.map(({ source }) => source),
      ...outcome.late.map(({ source }) => source),
    ]);
    const ids = (kind: string) =>
      [...new Set(all.flatMap((source) => (source.kind === kind && source.id > 0 ? source.id : [])))]
        .sort((a, b) => a - b)
        .slice(0, 600);
    const of = (kind: string) =>
      changes.flatMap((one) =>
        'kind' in one && one.kind === kind ? one.id : 'source' in one && one.source.kind === kind ? one.source.id : [],
      );
    const moved = (answer?.cases ?? []).flatMap(({ deliveries }) => deliveries.map(({ lineId }) => lineId));
    return {
      orders: [...new Set([...ids('order'), ...of('order')])].join(','),
      builds: [...new Set([...ids('build'), ...of('build')])].join(','),
      lines: [...new Set([...of('purchase'), ...moved])].slice(0, 600).join(','),
    };
  }, [answer, changes]);
  const named = useQuestion(
    'coverSources',
    { query: sources },
    { enabled: answer !== null || changes.length > 0, keep: true },
  ).data;
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
      supply: (kind, id) => {
        const other = bySource.get(`${kind}${id}`);
        const otherwise = isOfCase(id) ? THIS_BUILD : (other?.number ?? 'A draft order');
        return supplies.get(`${kind}${id}`) ?? { number: otherwise, from: other?.who ?? '', to: null };
      },
      source: ({ kind, id }) =>
        isOfCase(id) ? { kind: 'build', id, number: THIS_BUILD, who: '', worth: null } : bySource.get(`${kind}${id}`),
    };
  }, [coming, named]);
}
