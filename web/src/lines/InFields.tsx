import { useIsMutating } from '@tanstack/react-query';
import { type KeyboardEvent, useDeferredValue, useEffect, useState } from 'react';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { scannedLabel } from '../ui/scanned.ts';
import { Part } from '../ui/space.ts';
import { Faint } from '../ui/text.ts';
import { readTrack, type TrackedItem, type TypedTrack, withScan } from './typed.ts';

export const TrackRow = styled.div`
  display: flex; gap: 12px; align-items: flex-start; flex-wrap: wrap; padding: 0 0 6px 37px;
  small { line-height: 34px; }
  @media (max-width: 700px) { padding: 8px 0 0; > * { width: 100% !important; } button, select, input { min-height: 48px; } }
`;

interface Props {
  readonly item: TrackedItem;
  readonly typed: TypedTrack;
  readonly onChange: (typed: TypedTrack) => void;
  /** How many units come in: so many serials are asked for. */
  readonly quantity: number;
  /** Follows the serials, so that a range says how many at once. */
  readonly setCount?: (count: number) => void;
  readonly errorAt: (name: 'lot' | 'bestBefore' | 'serials') => string | undefined;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void;
  /** A serial that was here before may come back; then a known one is no clash. */
  readonly mayReturn?: boolean;
  /** The very units that are taken in: none of them is new, and none clashes with itself. */
  readonly isGivenBack?: boolean;
}

/** The lot, or the serials, of goods that come in; nothing where the item is not tracked. */
export function InFields(props: Props) {
  if (props.item.tracking === 'lot') return <LotIn {...props} />;
  if (props.item.tracking === 'serial') return <SerialsIn {...props} />;
  return null;
}

function LotIn({ item, typed, onChange, errorAt, onKeyDown }: Props) {
  const names = useQuestion('item', { params: { id: item.id } }).data?.lotFields ?? [];
  return (
    <TrackRow>
      <Part $width={190}>
        <Field
          label={`Lot of ${item.name}`}
          hideLabel
          step
          placeholder="Lot, as printed"
          value={typed.lot}
          onChange={(lot) => onChange(takeScan(typed, lot) ?? { ...typed, lot })}
          error={errorAt('lot')}
          {...(onKeyDown ? { onKeyDown } : {})}
        />
      </Part>
      <small>best before</small>
      <Part $width={160}>
        <DayField
          label={`Best-before day of ${item.name}`}
          hideLabel
          step
          value={typed.bestBefore}
          onChange={(bestBefore) => onChange({ ...typed, bestBefore })}
          error={errorAt('bestBefore')}
          {...(onKeyDown ? { onKeyDown } : {})}
        />
      </Part>
      <Faint>leave empty if it does not expire, or if the lot is known</Faint>
      {names.map((name) => (
        <Part key={name} $width={150}>
          <Field
            label={`${name} of ${item.name}`}
            hideLabel
            step
            placeholder={name}
            value={typed.attributes?.[name] ?? ''}
            onChange={(value) => onChange({ ...typed, attributes: { ...typed.attributes, [name]: value } })}
            {...(onKeyDown ? { onKeyDown } : {})}
          />
        </Part>
      ))}
    </TrackRow>
  );
}

/** A label scanned into a field of text: what it says goes where it belongs. */
function takeScan(typed: TypedTrack, text: string): TypedTrack | null {
  try {
    const scan = scannedLabel(text);
    return scan && (scan.lot || scan.serial) ? withScan(typed, scan) : null;
  } catch {
    return null;
  }
}

function SerialsIn({ item, typed, onChange, quantity, setCount, errorAt, onKeyDown, mayReturn, isGivenBack }: Props) {
  const read = readTrack(item, typed);
  const asked = useDeferredValue(read.serials);
  const wanted = Math.max(1, Math.min(2000, Math.round(quantity) || 1));
  const checked = useQuestion(
    'checkSerials',
    { params: { id: item.id }, body: { codes: asked, count: wanted } },
    { keep: true },
  );
  const check = checked.data;
  // What is being posted is there already, and is no clash with itself.
  const isPosting = useIsMutating() > 0;
  const clashes = (isGivenBack || isPosting ? [] : (check?.clashes ?? [])).filter(
    ({ code, says }) =>
      read.serials.some((one) => one.toLowerCase() === code.toLowerCase()) && !(mayReturn && says.startsWith('left')),
  );
  const free = isGivenBack ? null : (check?.nextFree ?? null);
  const put = (serials: string) => {
    onChange({ ...typed, serials });
    const { serials: codes, error } = readTrack(item, { ...typed, serials });
    if (!error && codes.length > 0) setCount?.(codes.length);
  };
  // A hand may be faster than the answer: the key waits for it.
  const isKnown = check !== undefined && !checked.isPlaceholderData;
  const [isTaking, setTaking] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is put is what was free when the answer came
  useEffect(() => {
    if (!isTaking || !isKnown) return;
    setTaking(false);
    if (free) put(free);
  }, [isTaking, isKnown]);
  const [clash] = clashes;
  const says = clash
    ? `${clash.code} ${clash.says}${clashes.length > 1 ? `, and ${clashes.length - 1} more` : ''}.`
    : undefined;
  return (
    <TrackRow>
      <Part $width={330}>
        <Field
          label={`Serial numbers of ${item.name}`}
          hideLabel
          step
          placeholder="SC-0101..0104, or one by one"
          value={typed.serials}
          suffix={`${read.serials.length} of ${wanted}`}
          onChange={(text) => {
            const scanned = takeScan({ ...typed, serials: '' }, text.split(/\s+/).at(-1) ?? '');
            put(scanned?.serials ? `${typed.serials} ${scanned.serials}`.trim() : text);
          }}
          error={says ?? read.error ?? errorAt('serials')}
          onKeyDown={(event) => {
            if (event.key === 'F2' && !isGivenBack) {
              event.preventDefault();
              setTaking(true);
            } else onKeyDown?.(event);
          }}
        />
      </Part>
      {free !== null ? (
        <Button look={clash ? 'plain' : 'ghost'} onPress={() => setTaking(true)}>
          Take {free} <kbd>F2</kbd>
        </Button>
      ) : (
        (isGivenBack || check) && (
          <Faint>
            {isGivenBack ? 'the piece that is taken in' : 'the item has no serial pattern, so none is suggested'}
          </Faint>
        )
      )}
    </TrackRow>
  );
}
