import type { Returnable } from '@yosegi/contract';
import styled from 'styled-components';
import { z } from 'zod';
import { Faint, Late } from '../ui/text.ts';

/** Units and lots by their codes. */
export const Named = z.object({ serials: z.array(z.string()).readonly(), lots: z.array(z.string()).readonly() });
export type Named = Readonly<z.infer<typeof Named>>;
export const NONE_NAMED: Named = { serials: [], lots: [] };

const Codes = styled.div`display: flex; flex-wrap: wrap; gap: 4px; align-items: center; margin-top: 4px;
  button { border: 1px solid var(--line); border-radius: 3px; background: var(--field); padding: 3px 8px; min-height: 28px; font: 600 12.5px var(--text); cursor: pointer; }
  button[aria-pressed='true'] { border: 2px solid var(--moss); background: var(--ok-wash); } button[aria-pressed='true']::before { content: '✓ '; }
  @media (max-width: 700px) { button { min-height: 44px; } }`;
/** The most codes to tap; others are found by a scan. */
const MOST = 40;

interface Props {
  /** What is still with the customer. */
  readonly of: Pick<Returnable, 'serials' | 'lots'>;
  readonly named: Named;
  readonly onChange: (named: Named) => void;
  readonly errorAt: (name: keyof Named) => string | undefined;
}

/** Which units or lots of a line come back, as far as somebody can tell. */
export function WhichBack({ of, named, onChange, errorAt }: Props) {
  const error = errorAt('serials') ?? errorAt('lots');
  return (
    <>
      {of.serials.length > 0 && (
        <Choose codes={of.serials} on={named.serials} onChange={(serials) => onChange({ ...named, serials })} />
      )}
      {of.lots.length === 1 && <Faint>lot {of.lots[0]}</Faint>}
      {of.lots.length > 1 && (
        <Choose codes={of.lots} on={named.lots} onChange={(lots) => onChange({ ...named, lots })} says="lot" />
      )}
      {error && <Late role="alert">{error}</Late>}
    </>
  );
}

function Choose({
  codes,
  on,
  onChange,
  says,
}: {
  codes: readonly string[];
  on: readonly string[];
  onChange: (on: readonly string[]) => void;
  says?: string;
}) {
  const shown = [...on, ...codes.filter((code) => !on.includes(code))];
  return (
    <Codes>
      {says && <Faint>{says}</Faint>}
      {shown.slice(0, MOST).map((code) => (
        <button
          key={code}
          type="button"
          aria-pressed={on.includes(code)}
          onClick={() => onChange(on.includes(code) ? on.filter((one) => one !== code) : [...on, code])}
        >
          {code}
        </button>
      ))}
      {shown.length > MOST && <Faint>and {shown.length - MOST} more: scan the one that is here</Faint>}
    </Codes>
  );
}

/** What a code that was looked for names of what is still with them; nothing where it names neither a unit nor a lot. */
export function namedBy(code: string, { serials, lots }: Props['of']): Named {
  const isIt = (one: string) => one.toLowerCase() === code.trim().toLowerCase();
  return { serials: serials.filter(isIt), lots: lots.filter(isIt) };
}

export const joined = (one: Named, other: Named): Named => ({
  serials: [...new Set([...one.serials, ...other.serials])],
  lots: [...new Set([...one.lots, ...other.lots])],
});
