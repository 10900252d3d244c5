import type { Piece } from '@yosegi/contract';
import { readExact, SCALE } from '@yosegi/core/number';
import type { KeyboardEvent } from 'react';
import styled from 'styled-components';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { type Format, useFormat } from '../ui/format.ts';
import { scannedLabel } from '../ui/scanned.ts';
import { Part } from '../ui/space.ts';
import { Faint, Row } from '../ui/text.ts';
import { daysUntil, SOON_DAYS } from './BestBefore.tsx';
import { TrackRow } from './InFields.tsx';
import { readTrack, type TrackedItem, type TypedTrack, toggleSerial, withScan } from './typed.ts';

const Serial = styled.button`
  border: 1px solid var(--line); border-radius: 3px; background: var(--field); padding: 4px 8px; min-height: 30px; font: 600 12.5px var(--text); cursor: pointer;
  &[aria-pressed='true'] { border: 2px solid var(--moss); padding: 3px 7px; background: var(--ok-wash); }
  &[aria-pressed='true']::before { content: '✓ '; }
`;
const MOST_SHOWN = 30;

interface Props {
  readonly item: TrackedItem & { readonly unit: string; readonly decimals: number };
  /** What stands where it is taken from. */
  readonly pieces: readonly Piece[];
  readonly typed: TypedTrack;
  readonly onChange: (typed: TypedTrack) => void;
  readonly quantity: number;
  readonly setCount?: (count: number) => void;
  readonly errorAt: (name: 'lot' | 'serials') => string | undefined;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLElement>) => void;
}

/** Which lot, or which serials, are taken; nothing where the item is not tracked. */
export function OutFields(props: Props) {
  if (props.item.tracking === 'lot') return <LotOut {...props} />;
  if (props.item.tracking === 'serial') return <SerialsOut {...props} />;
  return null;
}

/** A lot in a list of words: its day with a sign where it is near, how much there is, and whether it is held. */
export function lotWords(format: Format, piece: Piece, unit: string, decimals: number): string {
  const left = piece.bestBefore === null ? null : daysUntil(piece.bestBefore);
  const sign = left === null ? '' : left < 0 ? '⛔ ' : left <= SOON_DAYS ? '⏳ ' : '';
  return [
    `${sign}${piece.lot}`,
    piece.bestBefore === null ? 'keeps' : `best before ${format.longerDay(piece.bestBefore)}`,
    ...(piece.says === '' ? [] : [piece.says]),
    format.quantity(piece.quantity, unit, decimals),
    ...(piece.held === null ? [] : [piece.held]),
  ].join(' · ');
}

/** The lots that a quantity is taken from when none is named: as they stand, until there is enough. */
function firstToExpire(lots: readonly Piece[], quantity: number): Piece[] {
  const going: Piece[] = [];
  let left = Math.round(quantity * SCALE);
  for (const piece of lots.filter((one) => one.held === null)) {
    if (going.length > 0 && left <= 0) break;
    going.push(piece);
    left -= readExact(piece.quantity);
  }
  return going;
}

function LotOut({ item, pieces, typed, onChange, quantity, errorAt, onKeyDown }: Props) {
  const format = useFormat();
  const lots = pieces.filter((piece) => piece.lot !== null);
  const going = firstToExpire(lots, quantity);
  return (
    <TrackRow>
      <Part $width={430}>
        <Choice
          label={`Lot of ${item.name}`}
          hideLabel
          step
          value={typed.lot}
          onChange={(lot) => onChange({ ...typed, lot })}
          options={[
            [
              '',
              going.length === 0
                ? 'no lot here'
                : `first to expire: ${going.map((piece) => lotWords(format, piece, item.unit, item.decimals)).join(', then ')}`,
            ],
            ...lots.map((piece): [string, string] => [
              piece.lot ?? '',
              lotWords(format, piece, item.unit, item.decimals),
            ]),
          ]}
          error={errorAt('lot')}
          {...(onKeyDown ? { onKeyDown } : {})}
        />
      </Part>
    </TrackRow>
  );
}

function SerialsOut({ item, pieces, typed, onChange, quantity, setCount, errorAt, onKeyDown }: Props) {
  const read = readTrack(item, typed);
  const chosen = new Set(read.serials.map((code) => code.toLowerCase()));
  const here = pieces.flatMap((piece) => piece.serial ?? []);
  const put = (serials: string) => {
    onChange({ ...typed, serials });
    const { serials: codes, error } = readTrack(item, { ...typed, serials });
    if (!error && codes.length > 0) setCount?.(codes.length);
  };
  return (
    <TrackRow>
      <Part $width={300}>
        <Field
          label={`Serial numbers of ${item.name}`}
          hideLabel
          step
          placeholder="Scan or enter which ones"
          value={typed.serials}
          suffix={`${read.serials.length} of ${Math.round(quantity) || read.serials.length}`}
          onChange={(text) => {
            try {
              const scan = scannedLabel(text.split(/\s+/).at(-1) ?? '');
              put(scan?.serial ? withScan(typed, scan).serials : text);
            } catch {
              put(text);
            }
          }}
          error={read.error ?? errorAt('serials')}
          {...(onKeyDown ? { onKeyDown } : {})}
        />
      </Part>
      <Row as="span" $wrap $gap={5} $max={560}>
        {here.slice(0, MOST_SHOWN).map((code) => (
          <Serial
            key={code}
            type="button"
            aria-pressed={chosen.has(code.toLowerCase())}
            onClick={() => put(toggleSerial(typed.serials, code))}
          >
            {code}
          </Serial>
        ))}
        {here.length > MOST_SHOWN && <Faint>and {here.length - MOST_SHOWN} more here</Faint>}
        {here.length === 0 && <Faint>none here</Faint>}
      </Row>
    </TrackRow>
  );
}
