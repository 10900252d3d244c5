import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { api } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

const run = promisify(execFile);

describe('the commands that keep the data', () => {
  const folder = mkdtempSync(join(tmpdir(), 'yosegi-tools-'));
  const env = { ...process.env, YOSEGI_DATA: folder };
  const tool = (script: string, ...args: string[]) =>
    run('node', ['--import', 'tsx', `scripts/${script}.ts`, ...args], { env });
  const copy = join(folder, 'copy.sqlite');
  let server: TestServer;
  beforeAll(async () => {
    server = await TestServer.start(folder);
    const shop = await Workshop.open(server);
    await shop.receive(await shop.item('PART'), '5', '2');
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it('back up a running server, verify, and restore what was there then', async () => {
    expect((await tool('backup', copy)).stdout).toContain('Backed up');
    await expect(tool('backup', copy)).rejects.toThrow('is there already');
    const [item] = (await server.call(api.items, {})).rows;
    const line = { itemId: item?.id ?? 0, binId: item?.homeBinId ?? 0, quantity: '7', unitCost: '2' };
    await server.posted(api.receive, { body: { kind: 'receipt', lines: [line] } });
    await server.close(true);
    expect((await tool('verify')).stdout).toMatch(/All \d+ checks hold/);
    expect((await tool('restore', copy)).stdout).toContain('Restored');
    const again = await TestServer.start(folder);
    expect((await again.call(api.items, {})).rows[0]).toMatchObject({ onHand: '5' });
    await again.database.write((tx) => tx.run('UPDATE item_stock SET value = 1'));
    await again.close(true);
    await expect(tool('verify')).rejects.toThrow(/NOT SO: quantity and value by item equal the ledger/);
  });

  it('refuse a backup that does not add up, and leave the data as it is', async () => {
    const broken = join(folder, 'broken.sqlite');
    await tool('backup', broken);
    await expect(tool('restore', broken)).rejects.toThrow('does not add up');
    await expect(tool('restore')).rejects.toThrow('Say which backup');
  });
});
