import type { Freed } from '@yosegi/contract';
import { useDeferredValue } from 'react';
import { Link } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { type Format, useFormat } from '../ui/format.ts';
import { Section } from '../ui/space.ts';
import { Faint } from '../ui/text.ts';

interface Props {
  readonly taken: { readonly itemId: number; readonly quantity: string };
  /** What would come back good. */
  readonly parts: readonly { readonly itemId: number; readonly quantity: string }[];
}

/** The most that are named in a sentence each. */
const MOST = 6;

/** Whom taking something apart would serve, before it is done. */
export function Frees({ taken, parts }: Props) {
  const format = useFormat();
  // Every key changes what comes back; the answer follows at its own pace.
  const body = useDeferredValue(JSON.stringify({ taken, parts }));
  const isAny = parts.some(({ quantity }) => quantity !== '0') && Number(taken.quantity) > 0;
  const frees = useQuestion('apartFrees', { body: JSON.parse(body) }, { enabled: isAny, keep: true });
  const rows = isAny ? (frees.data ?? []) : [];
  if (rows.length === 0) return null;
  const whole = rows.filter((row) => row.whole);
  return (
    <Section aria-label="Needed by">
      <h2>{whole.length > 0 ? `This completes ${numbersOf(whole)}.` : 'Others need these parts.'}</h2>
      {rows.slice(0, MOST).map((row) => (
        <p key={`${row.kind}${row.id}`}>
          <Link to={row.kind === 'build' ? `/build/${row.id}` : `/orders/${row.id}`}>{row.number}</Link> · {row.who}{' '}
          <Faint>gets {partsOf(row, format)}</Faint>
        </p>
      ))}
      {rows.length > MOST && <Faint>and {rows.length - MOST} more</Faint>}
    </Section>
  );
}

const numbersOf = (rows: readonly Freed[]) => rows.map(({ number }) => number).join(', ');

const partsOf = ({ parts }: Freed, format: Format) =>
  parts.map(({ quantity, unit, name }) => `${format.quantity(quantity, unit, 3)} ${name}`).join(', ');
