// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
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
});
