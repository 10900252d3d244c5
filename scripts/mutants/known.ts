import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import type { Mutant } from './sow.ts';

/** What became of a mutant, and by what: the test file that noticed it, how much it survived, why it changes nothing. */
export interface Outcome {
  readonly is: 'noticed' | 'survived' | 'equivalent';
  readonly by: string;
}

const fileOf = (area: string) => `scripts/mutants/known-${area}.txt`;

/** What was found out before, by a mutant's key. */
export function known(area: string): ReadonlyMap<string, Outcome> {
  if (!existsSync(fileOf(area))) return new Map();
  return new Map(
    readFileSync(fileOf(area), 'utf8')
      .split('\n')
      .filter((line) => line !== '')
      .map((line) => {
        const [key = '', is = '', by = ''] = line.split('\t');
        return [key, { is: is as Outcome['is'], by }];
      }),
  );
}

/** Keeps what is known by now, for the next run; what was not tried this time stays as it was. */
export function keepKnown(
  area: string,
  before: ReadonlyMap<string, Outcome>,
  outcomes: ReadonlyMap<Mutant, Outcome>,
): void {
  const all = new Map([...before, ...[...outcomes].map(([{ key }, outcome]) => [key, outcome] as const)]);
  const lines = [...all].map(([key, { is, by }]) => `${key}\t${is}\t${by}`);
  writeFileSync(fileOf(area), `${lines.sort().join('\n')}\n`);
}

/** Mutants that change nothing anybody could see, each with the reason. */
export function equivalents(): ReadonlyMap<string, string> {
  const path = 'scripts/mutants/equivalent.txt';
  if (!existsSync(path)) return new Map();
  const lines = readFileSync(path, 'utf8').split('\n');
  return new Map(
    lines.flatMap((line) => {
      const [key, reason] = line.split('\t');
      return key && reason ? [[key, reason] as const] : [];
    }),
  );
}
