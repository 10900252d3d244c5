import type { Problem } from '@yosegi/contract';
import { factsOf } from '@yosegi/contract/problems';
import { useFormat } from '../ui/format.ts';
import { Bullets } from '../ui/text.ts';

/** Bin by bin, what was wanted and what is there, as a refusal says it. */
export function Shortages({ problem }: { problem: Problem | null }) {
  const format = useFormat();
  const lines = factsOf(problem, 'stock-short', 'serial-not-there')?.lines ?? [];
  if (lines.length === 0) return null;
  return (
    <Bullets>
      {lines.map((line) => (
        <li key={`${line.name}.${line.bin}.${line.lot}`}>
          {line.name}
          {line.lot && `, lot ${line.lot}`}: {format.quantity(line.wanted, line.unit ?? '')} needed from {line.bin},{' '}
          {format.quantity(line.there, line.unit ?? '')} there
        </li>
      ))}
    </Bullets>
  );
}
