import type { CoverItem } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { Button } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import type { Reckoned } from './useCoverage.ts';

const Told = styled.div`padding: 8px 12px; background: var(--coming-wash); border-left: 4px solid var(--coming);`;

interface Taken {
  readonly itemId: number;
  readonly was: number;
  readonly now: number;
  readonly part: number | null;
}

/** Says so when others have taken parts since this very question was first answered. */
export function FewerNow({ reckoned, items }: { reckoned: Reckoned<'cover'>; items: ReadonlyMap<number, CoverItem> }) {
  const format = useFormat();
  const before = useRef<{ key: string; now: ReadonlyMap<number, number>; version: string | null } | null>(null);
  const [taken, setTaken] = useState<Taken | null>(null);
  const { answer, to, version } = reckoned;
  useEffect(() => {
    if (!answer) return;
    const key = JSON.stringify(to);
    const now = new Map(answer.products.map((product) => [product.itemId, product.now as number]));
    const known = before.current;
    before.current = { key, now, version };
    if (known?.key !== key) return setTaken(null);
    if (known.version === version) return;
    const less = answer.products.find((product) => product.now < (known.now.get(product.itemId) ?? 0));
    if (less)
      setTaken({
        itemId: less.itemId,
        was: known.now.get(less.itemId) ?? 0,
        now: less.now,
        part: less.limitedBy,
      });
  }, [answer, to, version]);
  if (!taken) return null;
  const amount = (scaled: number) => format.number(formatDecimal(scaled));
  const part = taken.part === null ? undefined : items.get(taken.part);
  return (
    <Told role="status">
      You could make {amount(taken.was)} × {items.get(taken.itemId)?.name} a moment ago, now {amount(taken.now)}:
      someone else has taken {part ? part.name : 'parts'}.{' '}
      <Button look="ghost" onPress={() => setTaken(null)}>
        Dismiss
      </Button>
    </Told>
  );
}
