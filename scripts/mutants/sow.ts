import { createHash } from 'node:crypto';
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createInstrumenter, type Instrumenter, type InstrumenterOptions } from '@stryker-mutator/instrumenter';
import { createInjector } from 'typed-inject';
import type { Area } from './areas.ts';

/** One small change of a source. */
export interface Mutant {
  /** Wakes it in the mutated copy. */
  readonly id: string;
  /** The same from run to run, also when lines above it move. */
  readonly key: string;
  readonly path: string;
  readonly line: number;
  readonly original: string;
  readonly replacement: string;
}

type Found = Awaited<ReturnType<Instrumenter['instrument']>>['mutants'][number];
type Place = Found['location'];

/**
 * Writes a copy of the project in which the chosen mutants sleep.
 * @param seed chooses which, the same ones as long as the code is the same
 */
export async function sow(area: Area, work: string, seed: string, sample: number): Promise<readonly Mutant[]> {
  copyProject(work);
  const paths = filesIn(area.sources).filter(area.takes);
  const all = (await instrument(area, paths)).mutants;
  const keys = keysOf(all);
  const chosen = [...keys]
    .map(([where, key]) => ({ where, turn: hash(seed + key) }))
    .sort((a, b) => (a.turn < b.turn ? -1 : 1))
    .slice(0, sample);
  const wanted = new Set(chosen.map(({ where }) => where));
  const places = new Map<string, Place[]>();
  for (const mutant of all)
    if (wanted.has(whereOf(mutant)))
      places.set(mutant.fileName, [...(places.get(mutant.fileName) ?? []), mutant.location]);
  const { files, mutants } = await instrument(area, [...places.keys()], places);
  for (const { name, content } of files) writeFileSync(join(work, name), content);
  return mutants
    .filter((mutant) => wanted.has(whereOf(mutant)))
    .map((mutant) => ({
      id: mutant.id,
      key: keys.get(whereOf(mutant)) ?? '',
      path: mutant.fileName,
      line: mutant.location.start.line + 1,
      original: between(readFileSync(mutant.fileName, 'utf8'), mutant.location),
      replacement: mutant.replacement,
    }));
}

/** Lets Stryker's instrumenter find the mutants of these files, or of some places in them. */
async function instrument(area: Area, paths: readonly string[], places?: ReadonlyMap<string, Place[]>) {
  const quiet = () => undefined;
  const logger = { trace: quiet, debug: quiet, info: quiet, warn: quiet, error: quiet, fatal: quiet };
  const asked = { ...logger, isDebugEnabled: () => false } as never;
  const injector = createInjector().provideValue('logger', asked) as never;
  const instrumenter: Instrumenter = createInstrumenter(injector);
  const options = { excludedMutations: [...area.leaves], ignorers: [], plugins: null } as InstrumenterOptions;
  const files = paths.map((name) => ({ name, mutate: places?.get(name) ?? true, content: readFileSync(name, 'utf8') }));
  const { files: written, mutants } = await instrumenter.instrument(files, options);
  return { files: written, mutants: mutants.filter(({ status }) => status !== 'Ignored') };
}

const whereOf = ({ fileName, location: { start, end }, replacement }: Found) =>
  [fileName, start.line, start.column, end.line, end.column, replacement].join(' ');

/** A name for each that says what is changed and not in which line: file, texts, and the how manieth of its kind. */
function keysOf(mutants: readonly Found[]): ReadonlyMap<string, string> {
  const seen = new Map<string, number>();
  const sources = new Map<string, string>();
  return new Map(
    mutants.map((mutant) => {
      const { fileName, replacement, location } = mutant;
      const source = sources.get(fileName) ?? readFileSync(fileName, 'utf8');
      sources.set(fileName, source);
      const said = `${fileName} ${hash(`${between(source, location)}\n${replacement}`)}`;
      const nth = (seen.get(said) ?? 0) + 1;
      seen.set(said, nth);
      return [whereOf(mutant), nth === 1 ? said : `${said} ${nth}`];
    }),
  );
}

function between(source: string, { start, end }: Place): string {
  const lines = source.split('\n').slice(start.line, end.line + 1);
  const last = lines.length - 1;
  lines[last] = (lines[last] ?? '').slice(0, end.column);
  lines[0] = (lines[0] ?? '').slice(start.column);
  return lines.join('\n');
}

const hash = (text: string) => createHash('sha256').update(text).digest('hex').slice(0, 12);

/** The project in `work`, whose packages of our own are those of the copy. */
function copyProject(work: string): void {
  rmSync(work, { recursive: true, force: true });
  mkdirSync(join(work, 'node_modules', '@yosegi'), { recursive: true });
  const left = new Set(['node_modules', 'test-results', '.git', 'data', 'backups', 'dist']);
  const ours = readdirSync('.').filter((name) => !left.has(name));
  for (const name of ours)
    cpSync(name, join(work, name), { recursive: true, filter: (path) => !/\/(node_modules|dist)(\/|$)/.test(path) });
  const link = (name: string) =>
    symlinkSync(join(process.cwd(), 'node_modules', name), join(work, 'node_modules', name));
  for (const name of readdirSync('node_modules')) if (name !== '@yosegi' && name !== '.cache') link(name);
  for (const name of readdirSync('node_modules/@yosegi'))
    symlinkSync(join(process.cwd(), work, name), join(work, 'node_modules', '@yosegi', name));
  for (const name of ours) {
    // A package may have packages of its own, where two need different versions.
    const own = join(name, 'node_modules');
    try {
      readdirSync(own);
      symlinkSync(join(process.cwd(), own), join(work, own));
    } catch {
      // Most have none.
    }
  }
}

/** All files below a folder, sorted. */
export function filesIn(folder: string): readonly string[] {
  return readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name))
    .filter((path) => !path.includes('node_modules'))
    .sort();
}
