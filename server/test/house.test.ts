import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

// Rules of the house that neither the compiler nor the linter can hold.

const filesIn = (folder: string) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
    .map((name) => ({ name, code: readFileSync(join(folder, name), 'utf8') }));

describe('the house', () => {
  it('keeps SQL to the sql files, the models’ own folder and the posting path', () => {
    const statement = /\b(SELECT [\w*(']|UPDATE \w+ SET|INSERT INTO|DELETE FROM)/;
    const outside = filesIn('server/src').filter(
      ({ name, code }) => !/(^|[./\\])sql\.ts$|^(db|ledger|command)[/\\]/.test(name) && statement.test(code),
    );
    expect(outside.map(({ name }) => name)).toEqual([]);
  });

  it('never patches SQL, and speaks to the driver in the posting path alone', () => {
    const patched = filesIn('server/src').filter(({ code }) => /SQL\.replace|_SQL\}?\.replace/.test(code));
    expect(patched.map(({ name }) => name)).toEqual([]);
    const driving = filesIn('server/src').filter(({ code }) => /\.driver\./.test(code));
    expect(
      driving
        .map(({ name }) => name.split(/[/\\]/)[0])
        .filter((ring) => !['db', 'ledger', 'command'].includes(ring ?? '')),
    ).toEqual([]);
  });

  it('has amounts from the rows’ own types, and takes hardly any for one by its word', () => {
    const taken = filesIn('server/src').flatMap(({ name, code }) =>
      [...code.matchAll(/ as (Quantity|Money|Percent)\b/g)].map(() => name),
    );
    expect(taken.length).toBeLessThanOrEqual(45);
  });
});
