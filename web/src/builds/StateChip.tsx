import type { BuildRow } from '@yosegi/contract';
import { Chip } from '../ui/Chip.tsx';

/** Where a build stands, in a word. */
export function StateChip({ build }: { build: BuildRow }) {
  if (build.state === 'on-bench') return <Chip $tone="coming">on the bench</Chip>;
  if (build.state === 'finished') return <Chip $tone="ok">finished</Chip>;
  if (build.state === 'cancelled') return <Chip $tone="held">cancelled</Chip>;
  return build.waiting.length > 0 ? <Chip $tone="short">short of parts</Chip> : <Chip $tone="ok">ready to start</Chip>;
}
