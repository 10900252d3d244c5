import { api } from '@yosegi/contract';
import { conditions, settledBy } from '@yosegi/core/returns';
import fc from 'fast-check';
import type { Step, World } from './days.ts';
import { nat, pickFrom, step } from './step.ts';

// What comes back on a day: announced and arriving mixed, decided in every way, taken apart, called off.

async function reasonOf({ call }: World): Promise<number> {
  return (await call(api.reasons, {})).find(({ usedFor }) => usedFor === 'return')?.id ?? 0;
}

/** Some of a line, in one condition or in two, announced or here; now and then more than is with them. */
export const comeBack = step(fc.tuple(nat(9), nat(9), nat(4), fc.boolean()), async (world, [n, some, how, arrived]) => {
  const rows = await world.call(api.returnable, { query: { q: 'LARK' } });
  const row = pickFrom(rows, n);
  if (!row) return;
  const reasonId = await reasonOf(world);
  const of = (quantity: string, serials: readonly string[], at: number) => ({
    ...{ shipmentId: row.shipmentId, lineId: row.lineId, quantity, reasonId },
    condition: conditions[at % conditions.length] ?? 'used',
    serials: [...serials],
  });
  const first = row.serials.length > 0 ? '1' : String(Math.max(1, Math.min(some, Number(row.left))));
  const lines = [of(first, row.serials.slice(0, 1), n)];
  if (how > 2) lines.push(of('1', row.serials.slice(1, 2), n + 1));
  await world.call(api.announceReturn, { body: { arrived, lines } });
});

/** What was announced arrives: as many as were announced, or fewer, or another unit than was said. */
const arrive = step(fc.tuple(nat(9), nat(5)), async (world, [n, less]) => {
  const { rows } = await world.call(api.returns, { query: { state: 'announced' } });
  const row = pickFrom(rows, n);
  if (!row) return;
  const { version, lines } = await world.call(api.return, { params: { id: row.id } });
  const reasonId = await reasonOf(world);
  const here = lines.map((line) => {
    const { serials } = line.withThem;
    const quantity = serials.length > 0 ? '1' : String(Math.max(1, Number(line.quantity) - less));
    const unit = serials.length > 0 ? [pickFrom(serials, less) ?? ''] : [];
    const { shipmentId, orderLineId, condition } = line;
    return { shipmentId, lineId: orderLineId, quantity, reasonId, condition, serials: unit };
  });
  await world.call(api.arriveReturn, { params: { id: row.id }, body: { version, lines: here } });
});

const waiting = async ({ call }: World) =>
  (await call(api.waitingReturns, {})).returns.flatMap(({ lines }) =>
    lines.flatMap((line) => line.pieces.filter((piece) => piece.waiting !== '0').map((piece) => ({ ...piece, line }))),
  );

export const decide = step(fc.tuple(nat(9), nat(9), nat(9)), async (world, [at, n, part]) => {
  const pieces = await waiting(world);
  const piece = pickFrom(pieces, at);
  if (!piece) return;
  const outcome = settledBy[n % settledBy.length] ?? 'shelf';
  // A kit that is sent back goes with everything that came of it.
  const own =
    piece.line.isKit && outcome === 'sent-back' ? pieces.filter(({ line }) => line.id === piece.line.id) : [piece];
  const deeds = own.map((one) => ({
    pieceId: one.id,
    quantity: part > 3 || one.line.isKit ? one.waiting : String(Math.min(1, Number(one.waiting))),
    outcome,
    note: 'As seen',
    binId: n % 2 ? world.bin(2) : null,
  }));
  await world.call(api.settleReturns, { body: { deeds } });
});

const apart = step(fc.tuple(nat(9), nat(9)), async (world, [at, n]) => {
  const piece = pickFrom(
    (await waiting(world)).filter(({ canApart, line }) => canApart && !line.isKit),
    at,
  );
  if (!piece) return;
  const { call } = world;
  const { revisionId, lines } = await call(api.apartPlan, {
    params: { id: piece.itemId },
    query: { pieceId: piece.id },
  });
  const back = lines.map((line) => ({
    lineId: line.lineId,
    good: line.decimals > 0 ? '0.1' : String(n % 4),
    damaged: '0',
    binId: world.bin(1),
  }));
  const leftover = n % 2 ? ('spread' as const) : ('written-off' as const);
  const body = {
    itemId: piece.itemId,
    revisionId,
    binId: world.bin(2),
    pieceId: piece.id,
    quantity: '1',
    leftover,
    lines: back,
  };
  await call(api.takeApart, { body });
});

const callOff = step(nat(9), async (world, n) => {
  const row = pickFrom((await world.call(api.returns, { query: { state: 'announced' } })).rows, n);
  if (!row) return;
  const body = { version: row.version, because: 'It did not come' };
  await world.call(api.callOffReturn, { params: { id: row.id }, body });
});

/** Whatever may happen to what customers send back; most of it is coming back and deciding. */
export const anyReturn: fc.Arbitrary<Step> = fc.oneof(
  ...[comeBack, comeBack, comeBack, arrive, arrive, decide, decide, decide, apart, callOff],
);
