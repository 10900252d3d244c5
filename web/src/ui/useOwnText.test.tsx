// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { useOwnText } from './useOwnText.ts';

afterEach(cleanup);

function Typing({ value, write }: { value: string; write: (text: string) => void }) {
  const [text, type] = useOwnText(value, write);
  return <input value={text} onChange={(event) => type(event.target.value)} />;
}

/** A field whose value follows only when the test says so. */
function lateField(start: string) {
  const written: string[] = [];
  const write = (text: string) => written.push(text);
  const { rerender } = render(<Typing value={start} write={write} />);
  const box = screen.getByRole<HTMLInputElement>('textbox');
  return {
    written,
    shown: () => box.value,
    type: (value: string) => fireEvent.change(box, { target: { value } }),
    hold: (value: string) => act(() => rerender(<Typing value={value} write={write} />)),
  };
}

describe('a text whose value follows later', () => {
  it('shows what is typed, and no older text that arrives meanwhile takes it away', () => {
    const field = lateField('');
    for (const text of ['4', '45', '450']) field.type(text);
    expect([field.shown(), field.written]).toEqual(['450', ['4', '45', '450']]);
    field.hold('4');
    expect(field.shown()).toBe('450');
    field.hold('450');
    expect(field.shown()).toBe('450');
  });

  it('gives way to what was made of it, also where its value stays as it was', () => {
    render(<Typing value="" write={() => ''} />);
    const box = screen.getByRole<HTMLInputElement>('textbox');
    fireEvent.change(box, { target: { value: '-10%' } });
    expect(box.value).toBe('');
  });

  it('gives way to a value that comes from elsewhere', () => {
    const field = lateField('2');
    field.type('25');
    field.hold('25');
    field.hold('0.45');
    expect(field.shown()).toBe('0.45');
    field.hold('25');
    expect(field.shown()).toBe('25');
  });

  it('shows again what was typed when it comes from elsewhere, though it never arrived', () => {
    const field = lateField('');
    field.type('25');
    field.hold('0.45');
    field.hold('25');
    expect(field.shown()).toBe('25');
  });

  it('shows what was typed last while that is on its way, and what it has come to in the end', () => {
    const texts = fc.constantFrom('4', '45', '450', '45 kg');
    const event = fc.oneof(
      fc.record({ type: texts }),
      fc.record({ arrives: fc.nat(3) }),
      fc.record({ elsewhere: fc.constantFrom('7', '78') }),
    );
    fc.assert(
      fc.property(fc.array(event, { maxLength: 12 }), (events) => {
        const field = lateField('');
        let [onItsWay, value, shown, typing]: [string[], string, string, boolean] = [[], '', '', false];
        const hold = (next: string) => {
          field.hold(next);
          // The same value again is no news.
          if (next !== value && !typing) shown = next;
          value = next;
        };
        for (const one of events) {
          if ('type' in one) {
            field.type(one.type);
            if (shown !== one.type) onItsWay.push(one.type);
            if (shown !== one.type) [shown, typing] = [one.type, true];
          } else if ('arrives' in one && onItsWay[one.arrives] !== undefined) {
            hold(onItsWay[one.arrives] ?? '');
            onItsWay = onItsWay.slice(one.arrives + 1);
            typing = typing && onItsWay.length > 0;
          } else if ('elsewhere' in one && one.elsewhere !== value) {
            typing = false;
            onItsWay = [];
            hold(one.elsewhere);
          }
          expect(field.shown()).toBe(shown);
        }
        cleanup();
      }),
    );
  });
});
