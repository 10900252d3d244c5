import { execFile, spawn } from 'node:child_process';
import { once } from 'node:events';
import {
  closeSync,
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { type AddressInfo, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { api } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Database } from '../src/db/database.ts';
import { DataInUse, lockData } from '../src/db/lock.ts';
import { openData } from '../src/db/open.ts';
import { PortTaken, serve } from '../src/main.ts';
import { TestServer, Workshop } from './harness.ts';

const run = promisify(execFile);
const root = mkdtempSync(join(tmpdir(), 'yosegi-data-'));
const good = join(root, 'good.sqlite');
let places = 0;
/** A folder of its own with a copy of good data in it. */
function place(): { folder: string; file: string } {
  places += 1;
  const folder = join(root, `place-${places}`);
  mkdirSync(folder);
  const file = join(folder, 'yosegi.sqlite');
  copyFileSync(good, file);
  return { folder, file };
}
const tool = (folder: string, script: string, ...args: string[]) =>
  run('node', ['--import', 'tsx', `scripts/${script}.ts`, ...args], { env: { ...process.env, YOSEGI_DATA: folder } });
const failing = async (folder: string, script: string, ...args: string[]) => {
  const error = await tool(folder, script, ...args).then(
    () => ({ stderr: 'it did not fail', code: 0 }),
    (failed: { stderr: string; code: number }) => failed,
  );
  // A trace of calls is nothing that a person can act on.
  expect(error.stderr).not.toContain('    at ');
  return error.stderr;
};

beforeAll(async () => {
  const folder = join(root, 'first');
  const server = await TestServer.start(folder);
  const shop = await Workshop.open(server);
  await shop.receive(await shop.item('PART'), '5', '2');
  await server.close(true);
  await tool(folder, 'backup', good);
});
afterAll(() => rmSync(root, { recursive: true, force: true }));

describe('restoring', () => {
  it('is refused while a server has the data, and loses nothing of what it posts', async () => {
    const { folder, file } = place();
    const env = { ...process.env, YOSEGI_DATA: folder, PORT: '0', YOSEGI_LOG: 'silent' };
    const server = spawn('node', ['--import', 'tsx', 'server/src/main.ts'], {
      env,
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await once(server.stdout, 'data');
    expect(await failing(folder, 'restore', good)).toContain('in use by a running server');
    const second = spawn('node', ['--import', 'tsx', 'server/src/main.ts'], {
      env,
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    let told = '';
    second.stderr.on('data', (chunk) => {
      told += chunk;
    });
    expect(await once(second, 'exit')).toEqual([1, null]);
    expect(told).toContain('in use by a running server');
    server.kill('SIGKILL');
    await once(server, 'exit');
    // However it ended, its lock ended with it.
    expect((await tool(folder, 'restore', good)).stdout).toContain('Restored');
    await (await lockData(file))();
  });

  it('keeps what was there each time, under a name of its own', async () => {
    const { folder } = place();
    await tool(folder, 'restore', good);
    await tool(folder, 'restore', good);
    const kept = readdirSync(folder).filter((name) => name.includes('before-restore') && !/-(wal|shm)$/.test(name));
    expect(kept).toHaveLength(2);
    for (const name of kept) expect(statSync(join(folder, name)).size).toBeGreaterThan(100_000);
  });

  it.each([
    ['an empty file', (file: string) => writeFileSync(file, ''), 'is empty'],
    ['a text', (file: string) => writeFileSync(file, 'not a database, '.repeat(500)), 'is no data of ours'],
    [
      'a database of another program',
      async (file: string) => {
        const other = await Database.open(file);
        await other.maintain(({ script }) => script('CREATE TABLE things (id INTEGER)'));
        await other.close();
      },
      'is not the data of a company',
    ],
    [
      'one of a newer version',
      async (file: string) => {
        copyFileSync(good, file);
        const newer = await Database.open(file);
        await newer.maintain(({ script }) => script("INSERT INTO migrations (name) VALUES ('9999-later')"));
        await newer.close();
      },
      'was written by a newer version',
    ],
    [
      'one that does not add up',
      async (file: string) => {
        copyFileSync(good, file);
        const wrong = await Database.open(file);
        await wrong.maintain(({ script }) => script('UPDATE item_stock SET value = 1'));
        await wrong.close();
      },
      'quantity and value by item equal the ledger',
    ],
    ['one with a broken page', (file: string) => broken(file), /damaged|does not add up/],
  ])('refuses %s, touches nothing and leaves nothing behind', async (_, make, words) => {
    const { folder, file } = place();
    const before = statSync(file);
    const backup = join(root, `bad-${places}.sqlite`);
    await make(backup);
    expect(await failing(folder, 'restore', backup)).toMatch(words);
    expect([statSync(file).mtimeMs, statSync(file).size]).toEqual([before.mtimeMs, before.size]);
    expect(readdirSync(folder).filter((name) => /restoring|before/.test(name))).toEqual([]);
  });
});

/** Good data of which pages in the middle are overwritten. */
function broken(file: string): void {
  copyFileSync(good, file);
  const handle = openSync(file, 'r+');
  for (let page = 4; page < 40; page += 1) writeSync(handle, Buffer.alloc(2048, 0xa5), 0, 2048, page * 4096);
  closeSync(handle);
}

describe('data that cannot be used', () => {
  it.each([
    ['empty', (file: string) => writeFileSync(file, ''), 'is empty'],
    ['no database', (file: string) => writeFileSync(file, 'x'.repeat(9000)), 'is no data of ours'],
    ['damaged', (file: string) => broken(file), 'is damaged'],
  ])('that is %s is never taken for a new company: start, verify and backup say what to do', async (_, make, words) => {
    const { folder, file } = place();
    make(file);
    await expect(openData(file)).rejects.toThrow(words);
    expect(await failing(folder, 'verify')).toContain(words);
    expect(await failing(folder, 'backup', join(folder, 'copy.sqlite'))).toContain(words);
    expect(readdirSync(folder)).not.toContain('copy.sqlite');
  });

  it('that is not there begins a company, and good data is opened as it is', async () => {
    const fresh = await openData(join(root, 'fresh', 'yosegi.sqlite'));
    expect(await fresh.reader.one('SELECT 1 AS one FROM sqlite_schema LIMIT 1')).toBeUndefined();
    await fresh.maintain(({ script }) => script('CREATE TABLE something (id)'));
    for (const end of ['', '-wal', '-shm'])
      expect([end, statSync(join(root, 'fresh', `yosegi.sqlite${end}`)).mode & 0o777]).toEqual([end, 0o600]);
    await fresh.close();
    const { folder } = place();
    const server = await TestServer.start(folder);
    expect((await server.call(api.items, {})).rows[0]).toMatchObject({ onHand: '5' });
    await server.close();
  });

  it('is taken by one at a time', async () => {
    const file = join(root, 'locked.sqlite');
    const unlock = await lockData(file);
    await expect(lockData(file)).rejects.toBeInstanceOf(DataInUse);
    await unlock();
    await (await lockData(file))();
  });
});

it('says which port is taken and what to do, instead of a trace of calls', async () => {
  const other = createServer().listen(0, '127.0.0.1');
  await once(other, 'listening');
  const { port } = other.address() as AddressInfo;
  const { folder } = place();
  const starting = serve({ folder, port, log: 'silent' });
  await expect(starting).rejects.toThrow(`Port ${port} is used by another program`);
  await expect(starting).rejects.toBeInstanceOf(PortTaken);
  other.close();
});
