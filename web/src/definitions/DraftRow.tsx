import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { Rate } from '@yosegi/contract';
import { formatDecimal, type Percent } from '@yosegi/core/number';
import { Clock, GripVertical, Shuffle, StickyNote, Tag, X } from 'lucide-react';
import { type ComponentProps, createContext, type KeyboardEvent, memo, useContext, useMemo } from 'react';
import styled from 'styled-components';
import { Choice } from '../ui/Choice.tsx';
import { useFormat } from '../ui/format.ts';
import { Cell } from '../ui/layout.ts';
import { NumberInput } from '../ui/NumberInput.tsx';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Tip } from '../ui/Tip.tsx';
import { Faint, Late, Row } from '../ui/text.ts';
import { useOwnText } from '../ui/useOwnText.ts';
import type { DraftLine } from './draft.ts';
import { PartDetails } from './PartDetails.tsx';

const Deeds = styled.div`display: flex; align-items: center; justify-content: flex-end;`;
const Small = styled.button`
  border: 0; background: none; color: var(--ink-3); cursor: pointer; padding: 4px 3px; display: inline-flex; align-items: center; justify-content: center; gap: 1px; min-height: 24px; min-width: 24px;
  &:hover { color: var(--short); } &[data-has] { color: var(--indigo); font-weight: 600; }
`;
const Handle = styled.span`
  display: inline-flex; align-items: center; color: var(--ink-3); cursor: grab; touch-action: none; font-size: 12px; svg { opacity: 0.6; }
`;

interface Props {
  readonly line: DraftLine;
  readonly index: number;
  readonly cost: number;
  readonly rates: readonly Rate[];
  /** What is wrong with it, as {@link faultsOf} writes it, so that equal faults are equal. */
  readonly faults: string;
  readonly open: boolean;
  readonly grid: GridDeeds;
}

/** What changes of a line; a function is given the line as it is at this moment, and answers null where nothing does. */
export type LineEdit = Partial<DraftLine> | ((line: DraftLine) => Partial<DraftLine> | null);

/** What a row asks of its grid; the same object as long as the grid is there, so that a row is drawn for its own sake. */
export interface GridDeeds {
  readonly set: (index: number, part: LineEdit, tag?: string) => void;
  /** The amount of a part is left. */
  readonly settle: (index: number) => void;
  readonly remove: (index: number) => void;
  readonly keys: (event: KeyboardEvent, index: number, column: string) => void;
  readonly setOpen: (key: string, open: boolean) => void;
}

/** The faults of a line by field, as one text. */
export const faultsOf = (faults: Iterable<readonly [field: string, text: string]>): string =>
  JSON.stringify([...faults]);

const amountField = { part: 'quantity', labour: 'minutes', charge: 'amount', note: 'text' } as const;
const placeholders = {
  part: '',
  labour: 'What is done',
  charge: 'What is charged',
  note: 'Printed on the bench sheet',
} as const;

/** The take-apart share of each line as it is reckoned: any amount changes all of them, but nothing else of their rows. */
export const SharesContext = createContext<readonly (Percent | null)[]>([]);

function TextInput({ value, onChange, ...props }: ComponentProps<typeof NumberInput>) {
  const [text, type] = useOwnText(value, onChange);
  return <input {...props} value={text} onChange={(event) => type(event.target.value)} />;
}

function ShareInput({ index, ...props }: ComponentProps<typeof NumberInput> & { index: number }) {
  const share = useContext(SharesContext)[index] ?? null;
  return <NumberInput {...props} placeholder={share === null ? '' : formatDecimal(share, 2)} />;
}

/** One line of a draft, and beneath a part what may stand in for it. */
export const DraftRow = memo(function DraftRow({ line, index, cost, rates, faults, open, grid }: Props) {
  const format = useFormat();
  const byField = useMemo(() => new Map(JSON.parse(faults) as [string, string][]), [faults]);
  const fault = (name: string) => byField.get(name);
  const set = (part: LineEdit, tag?: string) => grid.set(index, part, tag && `${line.key}.${tag}`);
  const setOpen = (next: boolean) => grid.setOpen(line.key, next);
  /** What makes an input a cell of the grid. */
  const cell = (column: string, faultName = column) => ({
    'data-cell': `${index}.${column}`,
    onKeyDown: (event: KeyboardEvent) => grid.keys(event, index, column),
    'aria-invalid': fault(faultName) !== undefined,
    title: fault(faultName),
  });
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id: line.key });
  const name = line.item?.name ?? (line.text || line.kind);
  const unit = line.kind === 'part' ? line.item?.unit : line.kind === 'labour' ? 'min' : '';
  const more = line.alternates.length;
  return (
    <>
      <tr
        ref={setNodeRef}
        style={{
          transform: CSS.Transform.toString(transform ? { ...transform, scaleY: 1 } : null),
          transition,
          ...(isDragging ? { background: 'var(--coming-wash)' } : {}),
        }}
      >
        <td>
          <Handle {...listeners} title="Drag to another place, or Alt ↑ ↓">
            <GripVertical size={14} aria-hidden />
            {index + 1}
          </Handle>
        </td>
        <td>
          {line.kind === 'part' && line.item ? (
            <Cell>
              <Tile code={line.item.code} size={28} />
              <span>
                <b>{line.item.name}</b>
                <br />
                <Faint>
                  {line.item.code} · {format.quantity(line.item.free, line.item.unit, line.item.decimals)} free
                </Faint>
              </span>
            </Cell>
          ) : (
            <Cell>
              {line.kind === 'labour' ? (
                <Clock size={20} aria-hidden />
              ) : line.kind === 'charge' ? (
                <Tag size={20} aria-hidden />
              ) : (
                <StickyNote size={20} aria-hidden />
              )}
              <TextInput
                aria-label={`${line.kind}, line ${index + 1}`}
                placeholder={placeholders[line.kind]}
                value={line.text}
                onChange={(text) => set({ text }, 'text')}
                {...cell('text')}
              />
            </Cell>
          )}
          {line.kind === 'part' && fault('itemId') && <Late>{fault('itemId')}</Late>}
          {line.item?.archived && <Late>archived</Late>}
        </td>
        <td className="num">
          {line.kind !== 'note' && (
            <NumberInput
              aria-label={`Amount of ${name}`}
              value={line.amount}
              onChange={(amount) => set({ amount }, 'amount')}
              onBlur={() => line.kind === 'part' && grid.settle(index)}
              {...cell('amount', amountField[line.kind])}
            />
          )}
        </td>
        <td>
          {line.kind !== 'note' && (
            <Choice
              label={`How ${name} is counted`}
              hideLabel
              value={line.basis}
              onChange={(basis) => set({ basis: basis as DraftLine['basis'] })}
              options={[
                ['per-output', unit || 'by output'],
                ['per-run', unit ? `${unit} a batch` : 'once a batch'],
              ]}
              cell={cell('basis')}
            />
          )}
        </td>
        <td>
          {line.kind === 'part' && line.basis === 'per-output' && (
            <NumberInput
              aria-label={`Waste of ${name} in percent`}
              value={line.waste}
              onChange={(waste) => set({ waste }, 'waste')}
              {...cell('waste')}
            />
          )}
        </td>
        <td>
          {line.kind === 'part' ? (
            <Choice
              label={`When ${name} is taken`}
              hideLabel
              value={line.taken}
              onChange={(taken) => set({ taken: taken as DraftLine['taken'] })}
              options={[
                ['picked-first', 'picked first'],
                ['when-finished', 'when finished'],
              ]}
              cell={cell('taken')}
            />
          ) : line.kind === 'labour' ? (
            <Choice
              label={`Rate of ${name}`}
              hideLabel
              value={String(line.rateId)}
              onChange={(rateId) => set({ rateId: Number(rateId) })}
              options={rates.map((rate) => [String(rate.id), rate.name])}
              cell={cell('rateId')}
            />
          ) : (
            <Faint>{line.kind}</Faint>
          )}
        </td>
        <td className="num">{line.kind !== 'note' && format.number(formatDecimal(cost), 3, 3)}</td>
        <td>
          {line.kind === 'part' && (
            <Row $gap={2}>
              <Tick
                label={`${name} comes back on take-apart`}
                isOn={line.comesBack}
                onChange={(comesBack) => set({ comesBack })}
              />
              {line.comesBack && (
                <ShareInput
                  index={index}
                  aria-label={`Take-apart share of ${name}`}
                  value={line.share}
                  onChange={(share) => set({ share }, 'share')}
                  {...cell('share')}
                />
              )}
            </Row>
          )}
        </td>
        <td>
          <Deeds>
            {line.kind === 'part' && (
              <Tip text="Alternates and source bin (Alt A)">
                <Small
                  type="button"
                  aria-expanded={open}
                  aria-label={`Alternates and place of ${name}`}
                  {...(more > 0 || line.fromBinId !== null ? { 'data-has': true } : {})}
                  onClick={() => setOpen(!open)}
                >
                  <Shuffle size={14} aria-hidden />
                  {more > 0 && more}
                </Small>
              </Tip>
            )}
            <Tip text="Remove the line (Alt Delete)">
              <Small type="button" aria-label={`Remove ${name}`} onClick={() => grid.remove(index)}>
                <X size={16} aria-hidden />
              </Small>
            </Tip>
          </Deeds>
        </td>
      </tr>
      {open && line.kind === 'part' && line.item && (
        <tr>
          <td />
          <td colSpan={8}>
            <PartDetails line={line} item={line.item} set={set} fault={fault} onClose={() => setOpen(false)} />
          </td>
        </tr>
      )}
    </>
  );
});
