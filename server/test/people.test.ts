import { api } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ensureCompany } from '../src/db/migrate.ts';
import { TestServer } from './harness.ts';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.close());

describe('the company', () => {
  it('has what the owner entered; saved from an old page, it shows what is there now', async () => {
    const { company } = await server.call(api.session, {});
    const body = { name: 'Papers Ltd', address: 'Lane 1\nTown', email: 'a@papers.example', version: company.version };
    expect(await server.call(api.updateCompany, { body })).toMatchObject({ name: 'Papers Ltd' });
    expect(await server.refused(api.updateCompany, { body })).toMatchObject({
      code: 'stale-save',
      facts: { current: { address: 'Lane 1\nTown' } },
    });
    expect(await server.refused(api.updateCompany, { body: { ...body, email: 'nobody' } })).toMatchObject({
      field: 'email',
    });
  });

  it('says in which currency and language it writes and on which days it works, and leaves what is left out', async () => {
    const { company } = await server.call(api.session, {});
    expect(company).toMatchObject({ currency: 'EUR', locale: 'en', workDays: [1, 2, 3, 4, 5], setupStep: null });
    const said = { name: 'Test company', address: '', email: '' };
    const after = await server.call(api.updateCompany, {
      body: { ...said, currency: 'JPY', locale: 'de-DE', workDays: [6, 2, 2, 3], version: company.version },
    });
    expect(after).toMatchObject({ currency: 'JPY', locale: 'de-DE', workDays: [2, 3, 6] });
    const { version } = after;
    expect(await server.call(api.updateCompany, { body: { ...said, version } })).toMatchObject({ currency: 'JPY' });
    for (const [field, value] of [
      ['currency', 'EURO'],
      ['currency', 'ZZZ'],
      ['locale', 'de_DE'],
      ['locale', 'x'.repeat(5000)],
      ['workDays', []],
      ['workDays.0', [8]],
    ] as const) {
      const body = { ...said, version: version + 1, [field.split('.')[0] ?? '']: value };
      expect(await server.refused(api.updateCompany, { body } as never)).toMatchObject({ code: 'invalid', field });
    }
  });

  it('goes through its set-up step by step, and only when it has just begun', async () => {
    const step = async (next: number | null) => (await server.call(api.setUp, { body: { step: next } })).setupStep;
    expect([await step(3), await step(null)]).toEqual([3, null]);
    expect(await server.refused(api.setUp, { body: { step: 6 } })).toMatchObject({ field: 'step' });
    const start = { name: 'Second', currency: 'EUR', locale: 'en', setUp: true as const, people: [] };
    expect(await ensureCompany(server.database, start)).toBe(false);
  });
});

describe('people', () => {
  const body = { name: 'Ada Quill', initials: 'AQ', role: 'bench' as const, active: true };

  it('are added, changed by version, and let in no more', async () => {
    const ada = await server.call(api.createWorker, { body });
    expect(ada).toMatchObject({ ...body, version: 0 });
    expect(await server.refused(api.createWorker, { body })).toMatchObject({ code: 'code-taken', field: 'name' });
    const params = { id: ada.id };
    const gone = await server.call(api.updateWorker, { params, body: { ...body, active: false, version: 0 } });
    expect(gone).toMatchObject({ active: false, version: 1 });
    expect(await server.refused(api.updateWorker, { params, body: { ...body, version: 0 } })).toMatchObject({
      code: 'stale-save',
      facts: { current: { active: false } },
    });
    expect((await server.call(api.people, {})).map(({ name }) => name)).not.toContain('Ada Quill');
    expect(await server.refused(api.signIn, { body: { personId: ada.id } })).toMatchObject({ code: 'unknown-choice' });
    expect((await server.call(api.workers, {})).map(({ name }) => name)).toContain('Ada Quill');
  });

  it('always have an owner among them, and only owners see to it', async () => {
    const [owner] = await server.call(api.workers, {});
    const params = { id: owner?.id ?? 0 };
    const change = (part: object) => ({
      params,
      body: { name: 'Mo Owner', initials: 'MO', role: 'owner' as const, active: true, version: 0, ...part },
    });
    expect(await server.refused(api.updateWorker, change({ role: 'bench' }))).toMatchObject({
      ...{ code: 'last-owner', field: 'role' },
    });
    expect(await server.refused(api.updateWorker, change({ active: false }))).toMatchObject({
      ...{ code: 'last-owner', field: 'active' },
    });
    expect((await server.call(api.workers, {}))[0]).toEqual(owner);
    await server.signIn(2);
    for (const refused of [
      server.refused(api.createWorker, { body: { ...body, name: 'X' } }),
      server.refused(api.setUp, { body: { step: 1 } }),
    ])
      expect(await refused).toMatchObject({ code: 'owner-only' });
    await server.signIn(1);
  });
});

describe('somebody who is put out', () => {
  it('hears nothing more, from that very change on', async () => {
    await server.signIn(1);
    const made = await server.call(api.createWorker, { body: { name: 'Kim', initials: 'KI', role: 'bench' } });
    await server.signIn(made.id);
    const heard = await server.fetch('/api/events');
    const reader = heard.body?.getReader();
    const decoder = new TextDecoder();
    let text = '';
    while (!text.includes('retry')) text += decoder.decode((await reader?.read())?.value);
    await server.signIn(1);
    const body = { name: 'Kim', initials: 'KI', role: 'bench' as const, active: false, version: made.version };
    await server.call(api.updateWorker, { params: { id: made.id }, body });
    await server.call(api.createWorker, { body: { name: 'Lou', initials: 'LO', role: 'bench' } });
    for (;;) {
      const { done, value } = (await reader?.read()) ?? { done: true, value: undefined };
      text += decoder.decode(value);
      if (done) break;
    }
    expect(text).not.toContain('data:');
  });
});
