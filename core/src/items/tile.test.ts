import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tileOf, WOODS, woodOf } from './tile.ts';

describe('the tile of a code', () => {
  it('is always the same', () => {
    expect(tileOf('HIVE-10')).toEqual(tileOf('HIVE-10'));
    expect([tileOf('HIVE-10').ground, ...tileOf('HIVE-10').pieces.map(({ fill }) => fill)]).toEqual([
      '#94713f',
      '#2f6f73',
      '#2f6f73',
    ]);
    expect(woodOf('HIVE-10')).toBe('#94713f');
  });

  it('is cut from the woods there are, and its first pieces never vanish in the ground', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1, maxLength: 12 }), (code) => {
        const { ground, pieces } = tileOf(code);
        expect(WOODS).toContain(ground);
        expect(pieces).toHaveLength(2);
        for (const { d, fill } of pieces) {
          expect(WOODS).toContain(fill);
          expect(d).toMatch(/^M0|^M12|^M24/);
        }
        expect(pieces[0]?.fill).not.toBe(ground);
        expect(woodOf(code)).toBe(ground);
      }),
    );
  });

  it('is told apart from most others', () => {
    const tiles = new Set(Array.from({ length: 500 }, (_, n) => JSON.stringify(tileOf(`P-${n}`))));
    expect(tiles.size).toBeGreaterThan(350);
  });
});
