import { readFileSync, writeFileSync } from 'node:fs';

/** Lists the third-party packages in the lock file with their licences, for docs/licences.md. */
interface Locked {
  readonly version?: string;
  readonly license?: string;
  readonly dev?: boolean;
  readonly link?: boolean;
}
const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')) as { packages: Record<string, Locked> };
const rows = Object.entries(lock.packages)
  .filter(([path, { link }]) => path.includes('node_modules/') && !link)
  .map(([path, { version = '', license, dev }]) => ({
    name: path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length),
    version,
    license: license ?? licenceOf(path),
    use: dev ? 'development' : 'ships',
  }))
  .sort((a, b) => a.name.localeCompare(b.name) || a.version.localeCompare(b.version));
const unique = rows.filter(
  (row, index) => row.name !== rows[index - 1]?.name || row.version !== rows[index - 1]?.version,
);

const lines = [
  '# Third-party licences',
  '',
  'Made by `npm run licences` from the lock file. The fonts are under the SIL Open Font License 1.1.',
  '',
  '| package | version | licence | use |',
  '| --- | --- | --- | --- |',
  ...unique.map((row) => `| ${row.name} | ${row.version} | ${row.license} | ${row.use} |`),
];
writeFileSync('docs/licences.md', `${lines.join('\n')}\n`);
console.log(`${unique.length} packages listed in docs/licences.md.`);

function licenceOf(path: string): string {
  try {
    return (JSON.parse(readFileSync(`${path}/package.json`, 'utf8')) as { license?: string }).license ?? 'see package';
  } catch {
    return 'not installed here';
  }
}
