import { describe, expect, it } from 'vitest';
import type { Money } from '../number/index.ts';
import { afterDeed, canDo, repairMargin } from './index.ts';

describe('a repair', () => {
  it('goes from taking in to giving back, asks on the way, and begins only when nobody is waited for', () => {
    const way = ['ask', 'agree', 'start', 'finish', 'give-back'] as const;
    expect(way.reduce<Parameters<typeof afterDeed>[1]>((state, deed) => afterDeed(deed, state), 'taken-in')).toBe(
      'given-back',
    );
    expect(canDo('start', 'taken-in')).toBe(true);
    expect(() => afterDeed('start', 'asked')).toThrow('wrong-state');
    expect(() => afterDeed('give-back', 'on-bench')).toThrow('wrong-state');
    expect(() => afterDeed('finish', 'ready')).toThrow('wrong-state');
    expect(afterDeed('decline', 'on-bench')).toBe('ready');
    expect(afterDeed('take-back', 'given-back')).toBe('ready');
  });

  it('brings what is charged beyond its cost, and under warranty costs without a price', () => {
    expect(repairMargin(38_000_000 as Money, 13_380_000 as Money)).toBe(24_620_000);
    expect(repairMargin(null, 13_380_000 as Money)).toBe(-13_380_000);
  });
});
