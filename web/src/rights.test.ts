import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { api, can, type Right, type Route } from '@yosegi/contract';
import { expect, it } from 'vitest';

/** What is shown only by a page that asks, and which. */
const within: Readonly<Record<string, string>> = {
  'items/UnitsCard.tsx': 'places/PlacesPage.tsx',
  'people/CompanyForm.tsx': 'people/CompanyPage.tsx',
  'people/People.tsx': 'people/CompanyPage.tsx',
  'places/NewStore.tsx': 'places/PlacesPage.tsx',
  'places/Rates.tsx': 'places/PlacesPage.tsx',
  'places/StoreForm.tsx': 'places/PlacesPage.tsx',
};

const files = readdirSync(import.meta.dirname, { recursive: true, encoding: 'utf8' }).filter((path) =>
  /(?<!\.test)\.tsx?$/.test(path),
);
const textOf = (path: string) => readFileSync(join(import.meta.dirname, path), 'utf8');
const isAskedIn = (text: string, right: Right) =>
  text.includes(`useCan('${right}')`) || text.includes(`<ForOwner right="${right}"`);

/** Commands that a builder is refused, with the files that give them. */
const ownersOnly = files.flatMap((path) =>
  [...textOf(path).matchAll(/useCommand\(\s*'(\w+)'/g)].flatMap(([, name = '']) => {
    const { right } = (api as Readonly<Record<string, Route>>)[name] as Route;
    return can({ role: 'bench' }, right) ? [] : [[name, path, right] as const];
  }),
);

it.each(ownersOnly)('%s is offered only to those who may, in %s', (_, path, right) => {
  expect(isAskedIn(textOf(path), right) || isAskedIn(textOf(within[path] ?? path), right)).toBe(true);
});

it('there are such commands, and what is within a page is still there', () => {
  expect(ownersOnly.length).toBeGreaterThan(12);
  for (const path of Object.keys(within)) expect(ownersOnly.map(([, file]) => file)).toContain(path);
});
