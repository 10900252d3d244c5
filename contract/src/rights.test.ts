import { describe, expect, it } from 'vitest';
import { api } from './index.ts';
import { can, rights } from './rights.ts';

describe('rights', () => {
  it('let nobody in who has not signed in, except where anyone may', () => {
    expect(rights.filter((right) => can(null, right))).toEqual(['anyone']);
  });

  it('keep for owners what changes worth, places and what was refused', () => {
    const bench = rights.filter((right) => !can({ role: 'bench' }, right));
    expect(bench).toEqual(['override', 'approve-count', 'release', 'value', 'set-up']);
    expect(rights.filter((right) => !can({ role: 'owner' }, right))).toEqual([]);
  });

  it('are each needed by some route or asked for by name, and only looking is enough for a question', () => {
    const needed = new Set(Object.values(api).map((route) => route.right));
    expect(rights.filter((right) => !needed.has(right as never))).toEqual(['override']);
    const questions = Object.values(api).filter((route) => route.method === 'GET');
    expect(questions.filter(({ right }) => !['anyone', 'look'].includes(right))).toEqual([]);
  });
});
