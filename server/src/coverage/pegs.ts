import type { Pegs } from '@yosegi/contract';
import type { Given, Pegged } from '@yosegi/core/demand';
import { groupBy } from '@yosegi/core/lists';
import { add, type Quantity, ZERO } from '@yosegi/core/number';
import { decimal } from '../command/amounts.ts';
import { found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { readPegging } from '../demand/index.ts';
import { itemRows } from '../items/index.ts';
import { linesOf, type Named, sourcesOf, suppliesOf } from './pegs.sql.ts';

type Kind = 'build' | 'order' | 'purchase';

/** What feeds a build or an order, and whom a build or a purchase order feeds, as everything stands. */
export async function readPegs(db: Reader, kind: Kind, id: number, today: string): Promise<Pegs> {
  const lines = kind === 'purchase' ? await linesOf(db, id) : new Set<number>();
  const isOwn = ({ supply: { from } }: Given) =>
    kind === 'purchase' ? from.kind === 'purchase' && lines.has(from.id) : from.kind === kind && from.id === id;
  const { pegged } = await readPegging(db, today);
  const needing = pegged.filter(({ demand: { source } }) => source.kind === kind && source.id === id);
  const fed = pegged.flatMap(({ demand, given }) => given.filter(isOwn).map(({ quantity }) => ({ demand, quantity })));
  const items = await itemRows(db, [
    ...new Set([...needing.map(({ demand }) => demand.itemId), ...fed.map(({ demand }) => demand.itemId)]),
  ]);
  const itemOf = (itemId: number) => {
    const { code, name, unit, decimals } = found(items.get(itemId));
    return { id: itemId, code, name, unit, decimals };
  };
  const supplies = await suppliesOf(db, needing);
  const sources = await sourcesOf(
    db,
    fed.map(({ demand }) => demand.source),
  );
  return {
    needs: [...groupBy(needing, ({ demand }) => demand.itemId)].map(([itemId, own]) => ({
      item: itemOf(itemId),
      quantity: decimal(sum(own.map(({ demand }) => demand.quantity))),
      by: byOf(own, supplies),
      short: decimal(sum(own.map(({ short }) => short))),
      completeOn: own.some(({ completeOn }) => completeOn === null)
        ? null
        : (own
            .map(({ completeOn }) => completeOn ?? '')
            .sort()
            .at(-1) ?? ''),
    })),
    feeds: [...groupBy(fed, ({ demand }) => `${demand.itemId} ${demand.source.kind} ${demand.source.id}`).values()].map(
      (own) => {
        const { itemId, source } = found(own[0]).demand;
        const named = sources.get(`${source.kind}${source.id}`);
        return {
          item: itemOf(itemId),
          ...source,
          number: named?.number ?? '',
          who: named?.who ?? (source.kind === 'owed' ? 'a shelf below zero' : ''),
          quantity: decimal(sum(own.map(({ quantity }) => quantity))),
        };
      },
    ),
  };
}

const sum = (amounts: readonly Quantity[]) => add(ZERO, ...amounts);

function byOf(own: readonly Pegged[], supplies: ReadonlyMap<string, Named>): Pegs['needs'][number]['by'] {
  const given = own.flatMap((pegged) => pegged.given);
  return [...groupBy(given, ({ supply: { from }, on }) => `${from.kind}${from.id} ${on}`).values()].map((same) => {
    const { supply, on } = found(same[0]);
    const named = supplies.get(`${supply.from.kind}${supply.from.id}`);
    const quantity = decimal(sum(same.map((one) => one.quantity)));
    return { kind: supply.from.kind, id: named?.id ?? supply.from.id, number: named?.number ?? '', quantity, on };
  });
}
