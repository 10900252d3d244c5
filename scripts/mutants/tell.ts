import { writeFileSync } from 'node:fs';
import type { Area } from './areas.ts';
import type { Outcome } from './known.ts';
import type { Mutant } from './sow.ts';

/**
 * Says per feature how many were noticed, and lists what was not.
 * @returns whether the area reaches what it must
 */
export function tell(area: Area, outcomes: readonly (readonly [Mutant, Outcome])[]): boolean {
  const features = new Map<string, Outcome['is'][]>();
  for (const [{ path }, { is }] of outcomes) {
    const feature = path.slice(area.sources.length + 1).split('/')[0] ?? '';
    features.set(feature, [...(features.get(feature) ?? []), is]);
  }
  const row = (name: string, all: readonly Outcome['is'][]) => {
    const count = (is: Outcome['is']) => all.filter((one) => one === is).length;
    const tried = all.length - count('equivalent');
    const share = tried === 0 ? '–' : `${((count('noticed') * 100) / tried).toFixed(1)} %`;
    return `| ${name} | ${all.length} | ${count('noticed')} | ${count('survived')} | ${count('equivalent')} | ${share} |`;
  };
  const survivors = outcomes.filter(([, { is }]) => is === 'survived');
  const text = [
    `# Mutants of ${area.name}`,
    '',
    '| feature | mutants | noticed | survived | equivalent | noticed of those that matter |',
    '|---|---:|---:|---:|---:|---:|',
    ...[...features].sort().map(([name, all]) => row(name, all)),
    row('**all**', [...features.values()].flat()),
    '',
    '## Survived',
    '',
    ...survivors.map(
      ([{ key, path, line, original, replacement }, { by }]) =>
        `- ${path}:${line} (${key.split(' ').slice(1).join(' ')}; ${by})\n  \`${original}\`\n  → \`${replacement}\``,
    ),
    '',
  ].join('\n');
  const report = `test-results/mutants-${area.name}.md`;
  writeFileSync(report, text);
  const all = outcomes.filter(([, { is }]) => is !== 'equivalent');
  const share = ((all.length - survivors.length) * 100) / Math.max(1, all.length);
  console.log(text.slice(0, text.indexOf('## Survived')));
  console.log(
    `${area.name}: ${share.toFixed(1)} % noticed, at least ${area.least} % asked; the survivors are in ${report}`,
  );
  return share >= area.least;
}
