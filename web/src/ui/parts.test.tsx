// @vitest-environment jsdom
import { cleanup, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { type ReactElement, useState } from 'react';
import { I18nProvider } from 'react-aria-components';
import { afterEach, describe, expect, it } from 'vitest';
import { Button } from './Button.tsx';
import { Choice } from './Choice.tsx';
import { DayField } from './DayField.tsx';
import { Field } from './Field.tsx';
import { CompanyProvider } from './format.ts';
import { SCANNED } from './keys.ts';
import { Radios } from './Radios.tsx';
import { TextArea } from './TextArea.tsx';
import { Tick } from './Tick.tsx';
import { today } from './today.ts';

afterEach(cleanup);
// jsdom has none.
globalThis.CSS ??= { escape: (text: string) => text } as typeof CSS;

const company = (locale: string) => ({
  ...{ name: 'Hollowmere', currency: 'EUR', address: '', email: '', version: 0, locale },
  papers: { size: 'A4' as const, head: '', foot: '', columns: [], logo: null },
  ...{ workDays: [1, 2, 3, 4, 5], benchMinutes: 480, setupStep: null },
});

/** A part with its value, which the last of `seen` is. */
function show<Value>(
  begin: Value,
  part: (value: Value, onChange: (value: Value) => void) => ReactElement,
  locale = 'en-GB',
) {
  const seen: Value[] = [];
  render(
    <CompanyProvider value={company(locale)}>
      <I18nProvider locale={locale}>
        <Held begin={begin} part={part} seen={seen} />
      </I18nProvider>
    </CompanyProvider>,
  );
  return { seen, user: userEvent.setup() };
}

interface HeldProps<Value> {
  readonly begin: Value;
  readonly part: (value: Value, onChange: (value: Value) => void) => ReactElement;
  readonly seen: Value[];
}
function Held<Value>({ begin, part, seen }: HeldProps<Value>) {
  const [value, setValue] = useState(begin);
  return part(value, (next) => {
    seen.push(next);
    setValue(next);
  });
}

it('a button that was pressed keeps the focus while that is carried out, though it could not be pressed now', async () => {
  const { user } = show(false, (busy, onChange) => (
    <Button busy={busy} isDisabled={busy} onPress={() => onChange(true)}>
      Save
    </Button>
  ));
  const button = screen.getByRole('button', { name: /Save/ });
  await user.click(button);
  expect(document.activeElement).toBe(button);
  expect(button.matches(':disabled')).toBe(false);
});

describe('a field', () => {
  it('has its name, and says what is wrong with it', () => {
    show('x', (value, onChange) => <Field label="Code" value={value} onChange={onChange} error="Type a code." />);
    const field = screen.getByLabelText('Code') as HTMLInputElement;
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(document.getElementById(field.getAttribute('aria-describedby') ?? '')?.textContent).toBe('Type a code.');
  });

  it('takes a number as it is written here or elsewhere, and is plain behind it', async () => {
    const price = (value: string, onChange: (value: string) => void) => (
      <Field label="Price" numeric value={value} onChange={onChange} />
    );
    const { seen, user } = show('1234.5', price, 'de-DE');
    const field = screen.getByLabelText('Price') as HTMLInputElement;
    expect(field.value).toBe('1234,5');
    await user.click(field);
    await user.keyboard('1.234,50');
    expect([field.value, seen.at(-1)]).toEqual(['1.234,50', '1234.50']);
    await user.tab();
    expect(field.value).toBe('1234,50');
    await user.click(field);
    await user.keyboard('0.5 kg');
    expect(seen.at(-1)).toBe('0.5 kg');
    await user.tab();
    expect(field.value).toBe('0,5 kg');
  });

  it('says how it read what could be meant otherwise', async () => {
    const { seen, user } = show('', (value, onChange) => (
      <Field label="Price" numeric value={value} onChange={onChange} />
    ));
    await user.type(screen.getByLabelText('Price'), '1,234');
    expect(seen.at(-1)).toBe('1234');
    expect(screen.getByText('Read as 1,234')).toBeTruthy();
    await user.type(screen.getByLabelText('Price'), '5');
    expect(screen.queryByText(/Read as/)).toBeNull();
    expect(seen.at(-1)).toBe('1.2345');
  });

  it('of several lines has its name and its error too', async () => {
    const { seen, user } = show('', (value, onChange) => (
      <TextArea label="Note" value={value} onChange={onChange} error="Too long." />
    ));
    await user.type(screen.getByLabelText('Note'), 'a{Enter}b');
    expect(seen.at(-1)).toBe('a\nb');
    expect(screen.getByText('Too long.')).toBeTruthy();
  });
});

describe('a choice', () => {
  const woods = ['', 'Oak', 'Ash', 'Lime'].map((name): [string, string] => [name, name || 'any wood']);

  it('is opened, walked and made by keyboard, the empty one too', async () => {
    const { seen, user } = show('Oak', (value, onChange) => (
      <Choice label="Wood" value={value} onChange={onChange} options={woods} />
    ));
    await user.tab();
    expect(document.activeElement?.textContent).toContain('Oak');
    await user.keyboard(' ');
    expect(within(screen.getByRole('listbox')).getAllByRole('option')).toHaveLength(4);
    await waitFor(() => expect(screen.getByRole('listbox').contains(document.activeElement)).toBe(true));
    await user.keyboard('{ArrowDown}{Enter}');
    expect(seen).toEqual(['Ash']);
    // The field has the focus back a moment after its list is gone.
    await waitFor(() => {
      expect(screen.queryByRole('listbox')).toBeNull();
      expect(document.activeElement?.tagName).toBe('BUTTON');
    });
    await user.keyboard(' ');
    // The list takes the focus a moment after it is drawn; a key before that is the field's.
    await waitFor(() => expect(screen.getByRole('listbox').contains(document.activeElement)).toBe(true));
    await user.keyboard('{Home}{Enter}');
    expect(seen).toEqual(['Ash', '']);
    expect(screen.getByRole('button', { name: /any wood/ })).toBeTruthy();
  });

  it('of many is found by typing', async () => {
    const many = Array.from({ length: 40 }, (_, n): [string, string] => [`${n}`, `Bin ${n}`]);
    const { seen, user } = show('3', (value, onChange) => (
      <Choice label="Bin" value={value} onChange={onChange} options={many} />
    ));
    await user.click(screen.getByRole('button', { name: /Bin 3/ }));
    await user.keyboard('27');
    expect(screen.getAllByRole('option').map((option) => option.textContent)).toEqual(['Bin 27']);
    await user.keyboard('{ArrowDown}{Enter}');
    expect(seen).toEqual(['27']);
  });

  it('lets Enter walk on where a line of fields is walked', async () => {
    let walked = 0;
    const { user } = show('Oak', (value, onChange) => (
      <Choice
        label="Wood"
        hideLabel
        step
        value={value}
        onChange={onChange}
        options={woods}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          walked += 1;
        }}
      />
    ));
    await user.tab();
    await user.keyboard('{Enter}');
    expect(walked).toBe(1);
    expect(screen.queryByRole('listbox')).toBeNull();
  });

  it('is made by letters of a hand while its list is shut, and never by those of a scanner', async () => {
    const { seen, user } = show('Oak', (value, onChange) => (
      <Choice label="Wood" value={value} onChange={onChange} options={woods} />
    ));
    await user.tab();
    await user.keyboard('lim');
    window.dispatchEvent(new Event(SCANNED));
    await user.keyboard('as');
    await waitFor(() => expect(seen).toEqual(['Ash']));
  });

  it('says why it is refused', () => {
    show('Oak', (value, onChange) => (
      <Choice label="Wood" value={value} onChange={onChange} options={woods} error="There is none." />
    ));
    expect(screen.getByText('There is none.')).toBeTruthy();
  });
});

describe('a day', () => {
  const due = (value: string, onChange: (value: string) => void) => (
    <DayField label="Due" value={value} onChange={onChange} />
  );

  it('is typed as people type it, and shown as the company writes it', async () => {
    const { seen, user } = show('2026-11-25', due, 'de-DE');
    const field = screen.getByLabelText('Due') as HTMLInputElement;
    expect(field.value).toBe('25.11.2026');
    await user.click(field);
    await user.keyboard('24.12.26');
    expect(seen.at(-1)).toBe('2026-12-24');
    await user.clear(field);
    expect(seen.at(-1)).toBe('');
    await user.type(field, 'today');
    await user.tab();
    expect(seen.at(-1)).toBe(today());
    expect(field.value).toMatch(/^\d\d\.\d\d\.\d{4}$/);
  });

  it('that is none stays, and is told when the field is left', async () => {
    const { seen, user } = show('2026-11-25', due);
    const field = screen.getByLabelText('Due') as HTMLInputElement;
    await user.clear(field);
    await user.type(field, 'soon');
    expect(screen.queryByText(/Enter a date like/)).toBeNull();
    await user.tab();
    expect(screen.getByText(/Enter a date like/)).toBeTruthy();
    expect([field.value, seen.at(-1)]).toEqual(['soon', 'soon']);
    expect(field.getAttribute('aria-invalid')).toBe('true');
  });

  it('that is acted on at once is told when it is whole, not by its first digit', async () => {
    const { seen, user } = show('', (value, onChange) => (
      <DayField label="Due" actsAtOnce value={value} onChange={onChange} />
    ));
    const field = screen.getByLabelText('Due') as HTMLInputElement;
    await user.click(field);
    await user.keyboard('24/12/26');
    expect(seen).toEqual([]);
    await user.keyboard('{Enter}');
    expect(seen).toEqual(['2026-12-24']);
    await user.clear(field);
    await user.keyboard('soon');
    await user.tab();
    expect([seen.length, field.value]).toEqual([1, 'soon']);
    expect(screen.getByText(/Enter a date like/)).toBeTruthy();
  });

  it('is picked from a calendar', async () => {
    const { seen, user } = show('2026-11-25', due);
    await user.click(screen.getByRole('button', { name: 'Calendar' }));
    await screen.findByRole('grid');
    await user.keyboard('{ArrowRight}{Enter}');
    expect(seen).toEqual(['2026-11-26']);
    expect(screen.queryByRole('dialog')).toBeNull();
  });
});

describe('ticks and radios', () => {
  it('are set by the space bar and by arrows', async () => {
    const tick = show(false, (value, onChange) => (
      <Tick isOn={value} onChange={onChange}>
        Tax-free
      </Tick>
    ));
    await tick.user.tab();
    await tick.user.keyboard(' ');
    expect(tick.seen).toEqual([true]);
    expect((screen.getByRole('checkbox', { name: 'Tax-free' }) as HTMLInputElement).checked).toBe(true);
    cleanup();
    const radios = show<'a' | 'b'>('a', (value, onChange) => (
      <Radios
        label="How"
        value={value}
        onChange={onChange}
        options={[
          ['a', 'As one'],
          ['b', 'Each'],
        ]}
      />
    ));
    await radios.user.tab();
    await radios.user.keyboard('{ArrowDown}');
    expect(radios.seen).toEqual(['b']);
    expect(screen.getByRole('radiogroup', { name: 'How' })).toBeTruthy();
  });
});
