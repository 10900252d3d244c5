import type { ReturnDetail, ReturnPiece } from '@yosegi/contract';
import { describe, expect, it } from 'vitest';
import { goingWith, kitsThatCanGo, NOTHING_DECIDED, reckonPile, type TypedPiece } from './pile.ts';

const piece = (id: number, waiting: string, waitingValue: string) =>
  ({ id, name: `thing ${id}`, unit: 'each', decimals: 0, waiting, waitingValue }) as ReturnPiece;
const pile = (...pieces: ReturnPiece[]) => [{ lines: [{ pieces }] }] as unknown as ReturnDetail[];
const typed = (amounts: TypedPiece['amounts'], more: Partial<TypedPiece> = {}) => ({
  ...NOTHING_DECIDED,
  amounts,
  ...more,
});

describe('a pile of what came back', () => {
  it('comes to what is shelved, lost and sent back, at what it came back with', () => {
    const all = pile(piece(1, '4', '10'), piece(2, '1', '80'), piece(3, '2', '5'), piece(4, '0', '0'));
    const own = new Map([
      [1, typed({ shelf: '3', missing: '1' }, { binId: '7' })],
      [2, typed({ 'sent-back': '1' })],
      [4, typed({ shelf: '1' })],
    ]);
    expect(reckonPile(all, own)).toMatchObject({
      deeds: [
        { pieceId: 1, quantity: '3', outcome: 'shelf', binId: 7 },
        { pieceId: 1, quantity: '1', outcome: 'missing', binId: null },
        { pieceId: 2, quantity: '1', outcome: 'sent-back', binId: null },
      ],
      shelved: 7.5e6,
      lost: 2.5e6,
      sentBack: 80e6,
    });
  });

  it('says what is wrong at the thing, and sends nothing of it', () => {
    const all = pile(piece(1, '2', '10'), piece(2, '1', '1'), piece(3, '1', '1'));
    const own = new Map([
      [1, typed({ shelf: '2', damaged: '1' })],
      [2, typed({ shelf: 'x' })],
      [3, typed({ shelf: '-1' })],
    ]);
    const { deeds, faults } = reckonPile(all, own);
    expect(deeds).toEqual([]);
    expect([...faults.keys()]).toEqual([1, 2, 3]);
    expect(faults.get(1)).toBe('Only 2 left to decide.');
  });

  it('lets whole kits go back, their parts of whatever lots, and not one that is not whole any more', () => {
    const part = (id: number, partId: number, quantity: string, waiting = quantity) =>
      ({ ...piece(id, waiting, '1'), partId, quantity }) as ReturnPiece;
    const line = { quantity: '3', pieces: [part(1, 1, '6'), part(2, 2, '2'), part(3, 2, '1')] };
    expect(kitsThatCanGo(line)).toBe(3);
    expect([...goingWith(line, 2)]).toEqual([
      [1, '4'],
      [2, '2'],
    ]);
    expect([...goingWith(line, 3)]).toEqual([
      [1, '6'],
      [2, '2'],
      [3, '1'],
    ]);
    expect(kitsThatCanGo({ ...line, pieces: [part(1, 1, '6', '3'), part(2, 2, '2'), part(3, 2, '1')] })).toBe(1);
    // Seven of a part in three kits: who knows which of them has three.
    const odd = { quantity: '3', pieces: [part(1, 1, '7'), part(2, 2, '3')] };
    expect(kitsThatCanGo(odd)).toBe(3);
    expect(kitsThatCanGo({ ...odd, pieces: [part(1, 1, '7', '6'), part(2, 2, '3')] })).toBe(0);
  });
});
