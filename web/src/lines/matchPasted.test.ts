import { afterEach, expect, it, vi } from 'vitest';
import { matchPasted } from './matchPasted.ts';

afterEach(() => vi.unstubAllGlobals());

/** A server that knows some codes, and what others may be. */
function server(known: Record<string, number>, likely: Record<string, number[]> = {}) {
  const asked: string[][] = [];
  vi.stubGlobal('fetch', async (_: string, { body }: { body: string }) => {
    const { texts } = JSON.parse(body) as { texts: string[] };
    asked.push(texts);
    const item = (id: number) => ({ id, code: `C${id}` });
    const answer = texts.map((text) => ({
      text,
      item: known[text] === undefined ? null : item(known[text] as number),
      likely: (likely[text] ?? []).map(item),
    }));
    return new Response(JSON.stringify(answer));
  });
  return asked;
}

it('finds what is certain by code or by name, and keeps the rest with what it may be', async () => {
  const asked = server({ OAK: 1, 'Pine board': 2 }, { ASH: [3, 4, 5], Ashen: [6, 7, 8] });
  const pasted = await matchPasted('OAK\tOak board\t4\nPN\tPine board\t2\nASH\tAshen\t9\n');
  expect(asked).toEqual([['OAK', 'Oak board', 'PN', 'Pine board', 'ASH', 'Ashen']]);
  expect(pasted.found).toEqual([
    { item: { id: 1, code: 'C1' }, quantity: '4', price: '', waste: '' },
    { item: { id: 2, code: 'C2' }, quantity: '2', price: '', waste: '' },
  ]);
  expect(pasted.unknown).toEqual([
    {
      quantity: '9',
      price: '',
      waste: '',
      text: 'ASH · Ashen',
      likely: [3, 4, 5, 6].map((id) => ({ id, code: `C${id}` })),
    },
  ]);
});

it('asks for a text once, for no more than two hundred, and never for one that is longer than a name', async () => {
  const long = 'A'.repeat(300);
  const asked = server({ [long.slice(0, 200)]: 9 });
  const rows = Array.from({ length: 250 }, (_, at) => `P${at}\t1`);
  const { found } = await matchPasted([`${long}\t3`, `${long}\t4`, ...rows].join('\n'));
  expect(asked[0]).toHaveLength(200);
  expect(asked[0]?.filter((text) => text.startsWith('A'))).toEqual([long.slice(0, 200)]);
  expect(found.map(({ quantity }) => quantity)).toEqual(['3', '4']);
});
