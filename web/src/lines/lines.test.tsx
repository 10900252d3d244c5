// @vitest-environment jsdom

import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ApiProblem } from '@yosegi/contract/client';
import type { ReactNode } from 'react';
import { useState } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { PersonProvider } from '../api/person.ts';
import { Field } from '../ui/Field.tsx';
import { LineTable } from './LineTable.tsx';
import { Refusal } from './Refusal.tsx';
import { type TypedLine, useLines } from './typedLines.tsx';

beforeEach(() => {
  vi.stubGlobal('requestAnimationFrame', (act: () => void) => setTimeout(act, 0));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

interface Line extends TypedLine {
  readonly quantity: string;
  readonly cost: string;
  readonly less: string;
}

const begin: Line[] = ['Jar', 'Lid', 'Box'].map((name, key) => ({
  key,
  item: { code: name.toUpperCase(), name },
  quantity: String(key + 1),
  cost: '1',
  less: '',
}));

/** Three lines with two numbers each, and what the next one begins with. */
function Lines() {
  const [kept, setKept] = useState<readonly Line[]>(begin);
  const { lines, body, adder, set, remove, toNext } = useLines<Line>(kept, setKept);
  const number = (line: Line, name: 'quantity' | 'cost' | 'less') => (
    <Field
      label={`${name} of ${line.item.name}`}
      hideLabel
      numeric
      value={line[name]}
      {...(name === 'less' ? { step: false } : {})}
      onChange={(text) => set(line.key, { [name]: text })}
      onKeyDown={toNext}
    />
  );
  return (
    <LineTable
      lines={lines}
      body={body}
      onRemove={({ key }) => remove(key)}
      columns={[
        { head: 'Item', cell: ({ item }) => item.name },
        { head: 'Quantity', numeric: true, cell: (line) => number(line, 'quantity') },
        { head: 'Cost', numeric: true, cell: (line) => number(line, 'cost') },
        { head: 'Less', numeric: true, cell: (line) => number(line, 'less') },
      ]}
      adder={<input ref={adder} aria-label="Add an item" />}
    />
  );
}

describe('typed lines', () => {
  const at = () => document.activeElement?.getAttribute('aria-label');

  it('are walked with arrows in their column, and with Enter through their numbers to the next item', async () => {
    render(<Lines />);
    const user = userEvent.setup();
    await user.click(screen.getByLabelText('quantity of Jar'));
    await user.keyboard('{ArrowDown}');
    expect(at()).toBe('quantity of Lid');
    await user.keyboard('{Enter}');
    expect(at()).toBe('cost of Lid');
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}');
    expect(at()).toBe('cost of Box');
    await user.keyboard('{ArrowUp}{ArrowUp}{ArrowUp}');
    expect(at()).toBe('cost of Jar');
    await user.keyboard('{Enter}');
    expect(at()).toBe('Add an item');
    // What few lines need is passed over; from there too Enter goes on.
    await user.click(screen.getByLabelText('less of Jar'));
    await user.keyboard('{ArrowDown}');
    expect(at()).toBe('less of Lid');
    await user.keyboard('{Enter}');
    expect(at()).toBe('Add an item');
  });

  it('are taken out one by one', async () => {
    render(<Lines />);
    await userEvent.setup().click(screen.getByRole('button', { name: 'Remove Lid' }));
    expect(screen.getAllByRole('row')).toHaveLength(4);
    expect(screen.queryByLabelText('cost of Lid')).toBeNull();
  });
});

describe('a refusal', () => {
  const short = new ApiProblem({
    type: 'about:blank',
    title: 'Not enough there',
    status: 409,
    detail: 'The bin holds less than this needs.',
    code: 'stock-short',
    facts: { lines: [{ name: 'Jar', bin: 'A1', lot: null, unit: 'each', wanted: '5', there: '2' }] },
  } as never);
  const shown = (role: 'owner' | 'bench', refusal: ReactNode) =>
    render(
      <QueryClientProvider client={new QueryClient()}>
        <PersonProvider value={{ id: 1, name: 'Ada', initials: 'AQ', role }}>{refusal}</PersonProvider>
      </QueryClientProvider>,
    );

  it('says bin by bin what is missing, and lets an owner go over it for a reason', async () => {
    const post = vi.fn();
    shown('owner', <Refusal error={short} over={{ action: 'Move below zero', busy: false, post }} />);
    const user = userEvent.setup();
    expect(screen.getByText('Jar: 5 needed from A1, 2 there')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Move below zero…' }));
    await user.type(screen.getByRole('textbox'), 'counted wrong');
    await user.click(screen.getByRole('button', { name: 'Move below zero' }));
    expect(post).toHaveBeenCalledExactlyOnceWith('counted wrong');
  });

  it('offers nobody else to go over it, and keeps what an owner typed while it is tried', async () => {
    const { unmount } = shown('bench', <Refusal error={short} over={{ action: 'Go', busy: false, post: vi.fn() }} />);
    expect(screen.queryByRole('button')).toBeNull();
    unmount();
    const over = (busy: boolean) => ({ action: 'Go', busy, post: vi.fn() });
    const wrap = (refusal: ReactNode) => (
      <QueryClientProvider client={new QueryClient()}>
        <PersonProvider value={{ id: 1, name: 'Ada', initials: 'AQ', role: 'owner' }}>{refusal}</PersonProvider>
      </QueryClientProvider>
    );
    const again = render(wrap(<Refusal error={short} over={over(false)} />));
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: 'Go…' }));
    await user.type(screen.getByRole('textbox'), 'no time');
    again.rerender(wrap(<Refusal error={null} over={over(true)} />));
    again.rerender(wrap(<Refusal error={short} over={over(false)} />));
    expect(screen.getByRole<HTMLInputElement>('textbox').value).toBe('no time');
  });
});
