import { copyFileSync, existsSync, mkdtempSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeDemo } from './make.ts';

let made: Promise<string> | undefined;

/**
 * The file of a demo business that ends today, to be copied by whoever works on it. Made once by each process, or once by
 * a whole run of test suites, which names the file in YOSEGI_DEMO.
 */
export function demoOnce(): Promise<string> {
  const shared = process.env.YOSEGI_DEMO;
  if (shared && existsSync(shared)) return Promise.resolve(shared);
  made ??= make(shared);
  return made;
}

async function make(shared: string | undefined): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), 'yosegi-demo-'));
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  const file = join(folder, 'demo.sqlite');
  await makeDemo(file, new Date());
  if (!shared) return file;
  // Whole or not there: another process may have made it meanwhile, and either will do.
  const beside = `${shared}.${process.pid}`;
  copyFileSync(file, beside);
  renameSync(beside, shared);
  return shared;
}
