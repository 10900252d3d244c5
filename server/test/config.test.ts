import { resolve } from 'node:path';
import { describe, expect, it } from 'vitest';
import { BadConfiguration, databaseIn, readConfig } from '../src/config.ts';

describe('what the environment says', () => {
  it('has a default for everything', () => {
    expect(readConfig('data', {})).toEqual({ folder: resolve('data'), port: 4170, log: 'info' });
    expect(databaseIn(readConfig('data/demo', {}))).toBe(resolve('data/demo/yosegi.sqlite'));
  });

  it('is taken where it can be meant, and refused by name where it cannot', () => {
    const all = readConfig('data', { YOSEGI_DATA: '/x', PORT: '0', YOSEGI_LOG: 'silent' });
    expect(all).toEqual({ folder: '/x', port: 0, log: 'silent' });
    const wrong = () => readConfig('data', { PORT: 'http', YOSEGI_LOG: 'loud' });
    expect(wrong).toThrow(BadConfiguration);
    expect(wrong).toThrow(/PORT: .*\nYOSEGI_LOG: /);
  });
});
