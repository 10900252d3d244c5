import { fuzz } from './run.ts';

const option = (name: string, otherwise: number) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : Number(process.argv[at + 1]);
};
const seconds = option('seconds', 60);
const seed = option('seed', Math.floor(Math.random() * 1e6));
console.log(`Fuzzing for ${seconds} s with seed ${seed}…`);
const { findings, requests, byStatus, done } = await fuzz({ seconds, seed, slowest: option('slowest', 2000) });
const statuses = [...byStatus].sort(([a], [b]) => a - b).map(([status, count]) => `${count} × ${status}`);
console.log(`${requests} requests, ${statuses.join(', ')}; ${done.size} routes carried out at least once.`);
for (const { what, request, answer } of findings) console.error(`\nFOUND: ${what}\n  ${request}\n  ${answer}`);
console.log(findings.length === 0 ? 'Nothing found.' : `${findings.length} found; again with --seed ${seed}.`);
process.exitCode = findings.length === 0 ? 0 : 1;
