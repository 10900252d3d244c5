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

/** Keeps what is known of these mutants, for the next run. */
export function keepKnown(area: string, mutants: readonly Mutant[], outcomes: ReadonlyMap<Mutant, Outcome>): void {
  const lines = mutants.flatMap((mutant) => {
    const outcome = outcomes.get(mutant);
    return outcome ? [`${mutant.key}\t${outcome.is}\t${outcome.by}`] : [];
  });
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
