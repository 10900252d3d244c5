import { describe, expect, it } from 'vitest';
import type { Money } from '../number/index.ts';
import { afterDeed, canDo, repairMargin } from './index.ts';

describe('a repair', () => {
  it('goes from taking in to giving back, asks on the way, and begins only when nobody is waited for', () => {
    const way = ['ask', 'agree', 'start', 'finish', 'give-back'] as const;
    const after = (deed: Parameters<typeof afterDeed>[0], state: Parameters<typeof canDo>[1]) =>
      afterDeed(deed, { number: 'RP-0001', state });
    expect(way.reduce<Parameters<typeof canDo>[1]>((state, deed) => after(deed, state), 'taken-in')).toBe('given-back');
    expect(canDo('start', 'taken-in')).toBe(true);
    expect(() => after('start', 'asked')).toThrow('wrong-state');
    expect(() => after('give-back', 'on-bench')).toThrow('wrong-state');
    expect(() => after('finish', 'ready')).toThrow('wrong-state');
    expect(after('decline', 'on-bench')).toBe('ready');
    expect(after('take-back', 'given-back')).toBe('ready');
  });

  it('brings what is charged beyond its cost, and under warranty costs without a price', () => {
    expect(repairMargin(38_000_000 as Money, 13_380_000 as Money)).toBe(24_620_000);
    expect(repairMargin(null, 13_380_000 as Money)).toBe(-13_380_000);
  });
});
