// @vitest-environment jsdom
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ApiProblem } from '@yosegi/contract/client';
import { useState } from 'react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { Field } from './Field.tsx';
import { CompanyProvider } from './format.ts';
import { unsaved } from './unsaved.ts';
import { useRecordForm } from './useRecordForm.ts';

const company = {
  ...{ name: 'Hollowmere', currency: 'EUR', address: '', email: '', version: 0, locale: 'en-GB' },
  papers: { size: 'A4' as const, head: '', foot: '', columns: [], logo: null },
  ...{ workDays: [1, 2, 3, 4, 5], benchMinutes: 480, setupStep: null },
};
interface Bin {
  readonly version: number;
  readonly code: string;
  readonly walk: number;
}
const read = (bin: Bin | null) => ({ code: bin?.code ?? '', walk: String(bin?.walk ?? '') });
const schema = z.object({ code: z.string().trim().min(1), walk: z.number() });
const bodyOf = ({ code, walk }: ReturnType<typeof read>) => ({ code, walk: Number(walk) });
const none = { error: null as unknown, reset: () => {} };

const sent: unknown[] = [];
let form: ReturnType<typeof useRecordForm<Bin, ReturnType<typeof read>, ReturnType<typeof bodyOf>>>;
function Form({ bin, command = none }: { bin: Bin; command?: typeof none }) {
  form = useRecordForm({
    ...{ record: bin, read, bodyOf, schema, keptAs: 'bin.1', name: 'bin A1', shownAt: ['code', 'walk'], command },
  });
  return (
    <form onSubmit={form.submit((body) => sent.push({ ...body, version: form.version }))}>
      <Field label="Code" {...form.field('code')} />
      <Field label="Walk" {...form.field('walk')} />
      <button type="submit">Save</button>
    </form>
  );
}
/** The form of a bin that others change: `become` is what the server says of it now. */
let become: (bin: Bin, command?: typeof none) => void = () => {};
function Living({ bin }: { bin: Bin }) {
  const [now, setNow] = useState<{ bin: Bin; command?: typeof none }>({ bin });
  become = (next, command) => setNow({ bin: next, command });
  return (
    <CompanyProvider value={company}>
      <Form {...now} />
    </CompanyProvider>
  );
}
const field = (name: string) => screen.getByLabelText(name) as HTMLInputElement;
const begun = { version: 3, code: 'A1', walk: 1 };
const open = () => {
  render(<Living bin={begun} />);
  return userEvent.setup();
};

beforeEach(() => {
  localStorage.clear();
  sent.length = 0;
});
afterEach(cleanup);

describe('a record while it is typed', () => {
  it('follows what others save as long as nothing is typed over it', async () => {
    const user = open();
    become({ version: 4, code: 'A1', walk: 7 });
    await waitFor(() => expect(field('Walk').value).toBe('7'));
    await user.type(field('Code'), 'b');
    become({ version: 5, code: 'A1', walk: 9 });
    await waitFor(() => expect(field('Code').value).toBe('A1b'));
    expect(field('Walk').value).toBe('7');
    await user.click(screen.getByText('Save'));
    // Over the version that was seen, so that it is refused.
    await waitFor(() => expect(sent).toEqual([{ code: 'A1b', walk: 7, version: 4 }]));
    form.keepMine();
    await waitFor(() => expect(form.version).toBe(5));
    expect(field('Code').value).toBe('A1b');
    form.takeTheirs();
    await waitFor(() => expect([field('Code').value, field('Walk').value]).toEqual(['A1', '9']));
    expect(form.dirty).toBe(false);
  });

  it('takes an older answer that comes late for nothing', async () => {
    open();
    become({ version: 2, code: 'A0', walk: 0 });
    become({ version: 2, code: 'A0', walk: 0 });
    await waitFor(() => expect(field('Code').value).toBe('A1'));
  });

  it('says what is wrong before it is sent, and goes there', async () => {
    const user = open();
    await user.clear(field('Code'));
    await user.click(screen.getByText('Save'));
    await screen.findByText('Fill this in.');
    await waitFor(() => expect(document.activeElement).toBe(field('Code')));
    expect(sent).toEqual([]);
    await user.type(field('Code'), 'B2');
    expect(screen.queryByText('Fill this in.')).toBeNull();
  });

  it('says what was refused at its field until that is typed anew', async () => {
    const user = open();
    const problem = {
      type: '',
      title: 'Taken',
      status: 422,
      code: 'code-taken',
      detail: 'It is taken.',
      field: 'code',
    };
    become(begun, { error: new ApiProblem(problem), reset: () => {} });
    await screen.findByText('It is taken.');
    await user.type(field('Walk'), '2');
    expect(screen.getByText('It is taken.')).toBeTruthy();
    await user.type(field('Code'), 'c');
    expect(screen.queryByText('It is taken.')).toBeNull();
  });

  it('is there again after it was closed, and gone once it is saved', async () => {
    const user = open();
    await user.type(field('Code'), 'x');
    await waitFor(() => expect(unsaved().map(({ name }) => name)).toEqual(['bin A1']));
    cleanup();
    expect(unsaved()).toEqual([]);
    open();
    expect(field('Code').value).toBe('A1x');
    form.saved({ version: 4 });
    await waitFor(() => expect(form.dirty).toBe(false));
    cleanup();
    open();
    expect(field('Code').value).toBe('A1');
  });

  it('is let go of where it is thrown away', async () => {
    const user = open();
    await user.type(field('Code'), 'x');
    for (const one of unsaved()) one.forget();
    await waitFor(() => expect(field('Code').value).toBe('A1'));
    cleanup();
    open();
    expect(field('Code').value).toBe('A1');
  });

  it('says field by field what somebody else saved over what is typed', async () => {
    const user = open();
    await user.type(field('Code'), 'x');
    expect(form.theirs).toEqual([]);
    become({ version: 4, code: 'A1', walk: 7 });
    await waitFor(() => expect(form.theirs).toEqual([{ name: 'walk', theirs: '7', mine: '1' }]));
    become({ version: 5, code: 'B2', walk: 7 });
    await waitFor(() =>
      expect(form.theirs).toEqual([
        { name: 'code', theirs: 'B2', mine: 'A1x' },
        { name: 'walk', theirs: '7', mine: '1' },
      ]),
    );
  });
});
