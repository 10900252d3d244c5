import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isPrintable, isSeen, isVisible, plainCode, refuseUnprintable } from './index.ts';

describe('texts', () => {
  it.each(['a\u0000b', '\u0007', '\u001d', '\u007f', '\u0085', '\ud800', 'x\udc00y', '\ufffe', '\uffff'])(
    'that cannot be shown are found: %j',
    (text) => {
      expect(isPrintable(text)).toBe(false);
      expect(() => refuseUnprintable(text, 'note')).toThrow(
        expect.objectContaining({ code: 'unprintable', field: 'note' }),
      );
    },
  );

  it.each(['', 'Zoë\tand\nline', 'größe €', '👍 𝒜', 'مرحبا', '\u200b'])('that people write are kept: %j', (text) =>
    expect(isPrintable(text)).toBe(true),
  );

  it('are found wherever the character stands, and whole characters never are', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.constantFrom('\u0000', '\u001f', '\ud83d'), (text, bad) => {
        fc.pre(isPrintable(text));
        expect(isPrintable(`${text}${bad} ${text}`)).toBe(false);
      }),
    );
  });
});

describe('codes', () => {
  it('that look alike are one', () => {
    expect(plainCode(' ＷＡＸ－１ ')).toBe('WAX-1');
    expect(plainCode('\ufb01x')).toBe('fix');
  });

  it.each(['WA\u200bX', 'WAX\u00ad', '\u202eXAW', 'W\u2060AX', 'W AX', 'W\u0000X', '\ufeffWAX'])(
    'with something unseen in them are found: %j',
    (code) => expect(isVisible(code)).toBe(false),
  );
  it('of any letters are fine', () => expect(['WAX-1', 'Zoë', '蜂蜜', '№7'].every(isVisible)).toBe(true));
});

describe('names', () => {
  it.each(['', ' ', '\u200b', '\u00ad\u2060', '\ufeff \u200d'])('of which nothing can be seen are found: %j', (name) =>
    expect(isSeen(name)).toBe(false),
  );
  it('may hold what joins or turns letters', () =>
    expect(['A', '👩\u200d🌾', 'می\u200cخواهم', '蜂蜜'].every(isSeen)).toBe(true));
});
