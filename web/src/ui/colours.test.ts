import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';

const web = join(dirname(fileURLToPath(import.meta.url)), '..');
const sources = readdirSync(web, { recursive: true, encoding: 'utf8' })
  .filter((file) => /\.tsx?$/.test(file) && !file.includes('.test.'))
  .map((file) => readFileSync(join(web, file), 'utf8'))
  .join('\n');
const all = (pattern: RegExp) => new Set([...sources.matchAll(pattern)].map(([, name = '']) => name));

it('every colour that a style names is one of the palette', () => {
  const known = all(/--([a-z0-9-]+)(?:['"](?: as string\])?)?\s*:/g);
  // Set by the parts of React Aria.
  known.add('trigger-width');
  const named = new Set([...all(/var\(--([a-z0-9-]+)\)/g), ...all(/\$?edge="([a-z0-9-]+)"/g)]);
  expect([...named].filter((name) => !known.has(name))).toEqual([]);
  expect(named.size).toBeGreaterThan(40);
});
