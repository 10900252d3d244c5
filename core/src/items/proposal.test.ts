import fc from 'fast-check';
import { expect, it } from 'vitest';
import { proposedCode } from './proposal.ts';

it.each([
  ['Ten-frame hive, cedar', 'TEN-FRAM-HIVE'],
  ['Smoker, lined', 'SMOKE-LINE'],
  ['Gift box for three jars', 'GIFT-BOX-THRE'],
  ['Screw 4 × 40 mm', 'SCREW-4-40-MM'],
  ['Süßer Löffel', 'SUSSE-LOFF'],
  ['Box', 'BOX'],
  ['…', ''],
])('%s is %s', (name, code) => expect(proposedCode(name)).toBe(code));

it('is always short enough, without a space or a slash, or nothing', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), (name) => {
      expect(proposedCode(name)).toMatch(/^([^\s/]{1,40})?$/);
    }),
  );
});
