import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { parseArgs } from 'node:util';
import { type Area, areas } from './mutants/areas.ts';
import { Bed, spread } from './mutants/bed.ts';
import { equivalents, keepKnown, known, type Outcome } from './mutants/known.ts';
import { filesIn, type Mutant, sow } from './mutants/sow.ts';
import { tell } from './mutants/tell.ts';

/**
 * Makes small changes in a sample of the code, one at a time, and tells which of them no test notices.
 * `npm run mutants -- [area…] [--seed s] [--sample n] [--beds n] [--budget seconds]`
 *
 * Each mutant meets the test files that run through it, those that are the most its own first and then those that
 * noticed the most in little time, until one fails or the budget is spent. What was noticed once is not tried again.
 */
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    seed: { type: 'string', default: 'yosegi' },
    sample: { type: 'string' },
    beds: { type: 'string', default: '2' },
    budget: { type: 'string', default: '150' },
    again: { type: 'boolean', default: false },
  },
});

// Ended by hand, it still ends what it has started.
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(1));

let good = true;
for (const area of areas.filter(({ name }) => positionals.length === 0 || positionals.includes(name))) {
  const outcomes = await letLoose(area);
  good = tell(area, outcomes) && good;
}
process.exitCode = good ? 0 : 1;

async function letLoose(area: Area): Promise<readonly (readonly [Mutant, Outcome])[]> {
  const folder = join('test-results', 'mutants', area.name);
  const work = join(folder, 'work');
  const mutants = await sow(area, work, values.seed, Number(values.sample ?? area.sample));
  const before = values.again ? new Map<string, Outcome>() : known(area.name);
  const same = equivalents();
  const outcomes = new Map<Mutant, Outcome>();
  for (const mutant of mutants) {
    const reason = same.get(mutant.key);
    const outcome = before.get(mutant.key);
    if (reason !== undefined) outcomes.set(mutant, { is: 'equivalent', by: reason });
    else if (outcome?.is === 'noticed') outcomes.set(mutant, outcome);
  }
  const left = mutants.filter((mutant) => !outcomes.has(mutant));
  console.log(`${area.name}: ${mutants.length} mutants, ${left.length} to be tried`);
  if (left.length > 0) {
    const beds = await Promise.all(Array.from({ length: Number(values.beds) }, () => Bed.open(work, area.together)));
    const tests = await meet(area, folder, beds);
    // What was never tried goes first, for a run that is broken off tells more by it than by the known ones again.
    const inTurn = left.toSorted((a, b) => Number(before.has(a.key)) - Number(before.has(b.key)));
    await spread(beds, inTurn, async (bed, mutant) => {
      const outcome = await tryOne(bed, mutant, touching(mutant, mutants, tests), [...outcomes]);
      outcomes.set(mutant, outcome);
      keepKnown(area.name, before, outcomes);
      const said = `${mutant.path}:${mutant.line} ${short(mutant.original)} → ${short(mutant.replacement)}`;
      console.log(`${outcomes.size}/${mutants.length} ${outcome.is} ${outcome.by}  ${said}`);
    });
    for (const bed of beds) bed.close();
  }
  keepKnown(area.name, before, outcomes);
  return mutants.flatMap((mutant) => {
    const outcome = outcomes.get(mutant);
    return outcome ? [[mutant, outcome] as const] : [];
  });
}

function short(text: string): string {
  return text.replace(/\s+/g, ' ').slice(0, 60);
}

/** A test file that passes with no mutant awake. */
interface TestFile {
  readonly path: string;
  readonly seconds: number;
  readonly meets: ReadonlySet<string>;
}

/** Runs every test file once with no mutant awake, to learn which mutants it meets and how long it takes. */
async function meet(area: Area, folder: string, beds: readonly Bed[]): Promise<readonly TestFile[]> {
  const met = join(process.cwd(), folder, 'met');
  rmSync(met, { recursive: true, force: true });
  mkdirSync(met, { recursive: true });
  const paths = area.tests.flatMap(filesIn).filter((path) => /\.test\.tsx?$/.test(path));
  const tests: TestFile[] = [];
  await spread(beds, paths, async (bed, path) => {
    const answer = await bed.ask({ mutant: '', met, files: [path] }, 900);
    const file = answer?.files[0];
    // Tests of the sources' own texts fail on a copy with mutants in it.
    if (!file?.passed) return console.log(`left out, because it fails on the copy: ${path}`);
    const name = `${join(process.cwd(), folder, 'work', path).replaceAll('/', '~')}.json`;
    const meets = new Set<string>(JSON.parse(readFileSync(join(met, name), 'utf8')));
    tests.push({ path, seconds: file.seconds, meets });
  });
  return tests;
}

/** The tests that run through it; where it sleeps in a thread of its own, which tells nothing, those that use its folder. */
function touching({ id, path }: Mutant, mutants: readonly Mutant[], tests: readonly TestFile[]): readonly TestFile[] {
  const itself = tests.filter(({ meets }) => meets.has(id));
  if (itself.length > 0) return itself;
  const folder = dirname(path);
  const near = mutants.filter((one) => dirname(one.path) === folder);
  return tests.filter(({ meets }) => near.some((one) => meets.has(one.id)));
}

async function tryOne(
  bed: Bed,
  { id, path }: Mutant,
  tests: readonly TestFile[],
  before: readonly (readonly [Mutant, Outcome])[],
): Promise<Outcome> {
  // A file named like the source or its folder is about it.
  const [name = '', folder = ''] = path
    .replace(/(\.sql)?\.tsx?$/, '')
    .split('/')
    .reverse();
  const isAbout = (test: string) => Number(test.includes(`/${name}.`) || test.includes(`/${folder}.`));
  // What noticed others of the same folder counts for many that noticed something elsewhere.
  const weightOf = (one: Mutant) => (dirname(one.path) === dirname(path) ? 20 : 1);
  const worth = (test: TestFile) =>
    before.reduce((sum, [one, { by }]) => (by === test.path ? sum + weightOf(one) : sum), 1) / test.seconds;
  const inTurn = tests.toSorted((a, b) => isAbout(b.path) - isAbout(a.path) || worth(b) - worth(a));
  if (inTurn.length === 0) return { is: 'survived', by: 'met by no test' };
  const files: TestFile[] = [];
  let seconds = 0;
  for (const file of inTurn) {
    if (files.length > 0 && seconds + file.seconds > Number(values.budget)) continue;
    files.push(file);
    seconds += file.seconds;
  }
  const answer = await bed.ask({ mutant: id, met: '', files: files.map(({ path }) => path) }, seconds * 6 + 30);
  if (!answer) return { is: 'noticed', by: 'never ends' };
  const failed = answer.files.find(({ passed }) => !passed);
  if (failed) return { is: 'noticed', by: failed.path };
  if (answer.faults[0] !== undefined) return { is: 'noticed', by: short(answer.faults[0]) };
  return { is: 'survived', by: `${files.length} of ${inTurn.length} files` };
}
