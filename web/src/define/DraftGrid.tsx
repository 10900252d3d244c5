import type { Problem, Rate } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import { Clock, StickyNote, Tag, X } from 'lucide-react';
import { type KeyboardEvent, useRef } from 'react';
import { flushSync } from 'react-dom';
import styled from 'styled-components';
import { Button } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Cell, Grid } from '../ui/layout.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Row } from '../ui/text.ts';
import { chargeLine, type Draft, type DraftLine, labourLine, noteLine, partLine, type Reckoning } from './draft.ts';

const Table = styled(Grid)`
  input, select {
    border: 1px solid transparent; background: transparent; border-radius: 2px; padding: 4px 5px; width: 100%; min-width: 0;
    &:hover { border-color: var(--line); } &:focus { background: #fff; border-color: var(--indigo); outline: 1px solid var(--indigo); }
    &[aria-invalid='true'] { border-color: var(--short); background: var(--short-wash); }
  }
  input.num { text-align: right; }
  select { appearance: none; cursor: pointer; text-decoration: underline dotted var(--ink-3); text-underline-offset: 3px; }
  td { padding: 2px 3px; }
  svg { flex: none; }
`;
const Remove = styled.button`border: 0; background: none; color: var(--ink-3); cursor: pointer; padding: 4px; display: grid; &:hover { color: var(--short); }`;
const Adders = styled(Row)`margin-top: 10px; flex-wrap: wrap;`;

interface Props {
  readonly draft: Draft;
  readonly change: (draft: Draft) => void;
  readonly reckoning: Reckoning;
  readonly rates: readonly Rate[];
  /** What one run makes, for the heading. */
  readonly output: string;
  readonly refused: Problem | null;
}

/** The grid of a draft: type a part, Enter, its quantity, Enter, the next. */
export function DraftGrid({ draft, change, reckoning, rates, output, refused }: Props) {
  const format = useFormat();
  const body = useRef<HTMLTableSectionElement>(null);
  const adder = useRef<HTMLInputElement>(null);
  const { lines } = draft;
  const set = (index: number, part: Partial<DraftLine>) =>
    change({ ...draft, lines: lines.map((line, at) => (at === index ? { ...line, ...part } : line)) });
  // At once, so that what a quick hand types next lands in the new cell.
  const focus = (index: number, column: string) =>
    body.current?.querySelector<HTMLElement>(`[data-cell="${index}.${column}"]`)?.focus();
  const add = (line: DraftLine, column: string) => {
    change({ ...draft, lines: [...lines, line] });
    // A part may be picked by an answer that arrives later, where React cannot be made to draw at once.
    requestAnimationFrame(() => focus(lines.length, column));
  };
  const move = (from: number, to: number, column: string) => {
    if (to < 0 || to >= lines.length) return;
    const next = [...lines];
    next.splice(to, 0, ...next.splice(from, 1));
    flushSync(() => change({ ...draft, lines: next }));
    focus(to, column);
  };
  const keys = (index: number, column: string) => (event: KeyboardEvent) => {
    const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    if (step !== 0 && event.altKey) {
      event.preventDefault();
      move(index, index + step, column);
    } else if (step !== 0 && !(event.target instanceof HTMLSelectElement)) {
      event.preventDefault();
      focus(index + step, column);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      if (index + 1 < lines.length && column !== 'amount') focus(index + 1, column);
      else adder.current?.focus();
    }
  };
  const fault = (index: number, name: string) => {
    const field = `lines.${index}.${name}`;
    return reckoning.faults.get(field) ?? (refused?.field === field ? refused.detail : undefined);
  };
  const cell = (index: number, column: string, faultName: string = column) => ({
    'data-cell': `${index}.${column}`,
    onKeyDown: keys(index, column),
    'aria-invalid': fault(index, faultName) !== undefined,
    title: fault(index, faultName),
  });
  const amountField = { part: 'quantity', labour: 'minutes', charge: 'amount', note: 'text' } as const;

  return (
    <>
      <Table>
        <colgroup>
          <col style={{ width: 26 }} />
          <col />
          <col style={{ width: 64 }} />
          <col style={{ width: 70 }} />
          <col style={{ width: 50 }} />
          <col style={{ width: 108 }} />
          <col style={{ width: 58 }} />
          <col style={{ width: 78 }} />
          <col style={{ width: 26 }} />
        </colgroup>
        <thead>
          <tr>
            <th>#</th>
            <th>Component</th>
            <th className="num">For {output}</th>
            <th>Counted</th>
            <th className="num">Waste %</th>
            <th>Taken</th>
            <th className="num">Cost</th>
            <th className="num">Back %</th>
            <th aria-label="Remove" />
          </tr>
        </thead>
        <tbody ref={body}>
          {lines.map((line, index) => {
            const share = reckoning.shares[index];
            const name = line.item?.name ?? (line.text || line.kind);
            const unit = line.kind === 'part' ? line.item?.unit : line.kind === 'labour' ? 'min' : '';
            return (
              <tr key={line.key}>
                <td>
                  <Faint>{index + 1}</Faint>
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
                      <input
                        aria-label={`${line.kind}, line ${index + 1}`}
                        placeholder={
                          line.kind === 'labour'
                            ? 'What is done'
                            : line.kind === 'charge'
                              ? 'What is charged'
                              : 'Printed on the bench sheet'
                        }
                        value={line.text}
                        onChange={(event) => set(index, { text: event.target.value })}
                        {...cell(index, 'text')}
                      />
                    </Cell>
                  )}
                  {line.kind === 'part' && fault(index, 'itemId') && <Late>{fault(index, 'itemId')}</Late>}
                </td>
                <td className="num">
                  {line.kind !== 'note' && (
                    <input
                      className="num"
                      inputMode="decimal"
                      aria-label={`Amount of ${name}`}
                      value={line.amount}
                      onChange={(event) => set(index, { amount: event.target.value })}
                      onFocus={(event) => event.currentTarget.select()}
                      {...cell(index, 'amount', amountField[line.kind])}
                    />
                  )}
                </td>
                <td>
                  {line.kind !== 'note' && (
                    <select
                      aria-label={`How ${name} is counted`}
                      value={line.basis}
                      onChange={(event) => set(index, { basis: event.target.value as DraftLine['basis'] })}
                      {...cell(index, 'basis')}
                    >
                      <option value="per-output">{unit || 'by output'}</option>
                      <option value="per-run">{unit ? `${unit} a run` : 'once a run'}</option>
                    </select>
                  )}
                </td>
                <td>
                  {line.kind === 'part' && line.basis === 'per-output' && (
                    <input
                      className="num"
                      inputMode="decimal"
                      aria-label={`Waste of ${name} in percent`}
                      value={line.waste}
                      onChange={(event) => set(index, { waste: event.target.value })}
                      {...cell(index, 'waste')}
                    />
                  )}
                </td>
                <td>
                  {line.kind === 'part' ? (
                    <select
                      aria-label={`When ${name} is taken`}
                      value={line.taken}
                      onChange={(event) => set(index, { taken: event.target.value as DraftLine['taken'] })}
                      {...cell(index, 'taken')}
                    >
                      <option value="picked-first">picked first</option>
                      <option value="when-finished">when finished</option>
                    </select>
                  ) : line.kind === 'labour' ? (
                    <select
                      aria-label={`Rate of ${name}`}
                      value={line.rateId}
                      onChange={(event) => set(index, { rateId: Number(event.target.value) })}
                      {...cell(index, 'rateId')}
                    >
                      {rates.map((rate) => (
                        <option key={rate.id} value={rate.id}>
                          {rate.name}
                        </option>
                      ))}
                    </select>
                  ) : (
                    <Faint>{line.kind}</Faint>
                  )}
                </td>
                <td className="num">
                  {line.kind !== 'note' && format.number(formatDecimal(reckoning.cost.lines[index] ?? 0), 3, 3)}
                </td>
                <td>
                  {line.kind === 'part' && (
                    <Row $gap={2}>
                      <input
                        type="checkbox"
                        aria-label={`${name} comes back on take-apart`}
                        style={{ width: 24, height: 24, flex: 'none', margin: 0, accentColor: 'var(--walnut)' }}
                        checked={line.comesBack}
                        onChange={(event) => set(index, { comesBack: event.target.checked })}
                      />
                      {line.comesBack && (
                        <input
                          className="num"
                          inputMode="decimal"
                          aria-label={`Take-apart share of ${name}`}
                          placeholder={share === null || share === undefined ? '' : formatDecimal(share, 2)}
                          value={line.share}
                          onChange={(event) => set(index, { share: event.target.value })}
                          {...cell(index, 'share')}
                        />
                      )}
                    </Row>
                  )}
                </td>
                <td>
                  <Remove
                    type="button"
                    aria-label={`Remove ${name}`}
                    onClick={() => change({ ...draft, lines: lines.filter((_, at) => at !== index) })}
                  >
                    <X size={16} aria-hidden />
                  </Remove>
                </td>
              </tr>
            );
          })}
        </tbody>
        <tfoot>
          <tr>
            <td />
            <td colSpan={4}>
              <ItemPicker
                label="Add a part"
                hideLabel
                placeholder="Type a part: code, name or a piece of either"
                inputRef={adder}
                onPick={(item) => add(partLine(item), 'amount')}
              />
            </td>
            <td />
            <td className="num">
              <b>{format.number(formatDecimal(reckoning.cost.total), 3, 3)}</b>
            </td>
            <td className="num">
              {reckoning.faults.has('share') ? (
                <Late>≠ 100</Late>
              ) : (
                reckoning.shares.some((share) => share !== null) && <b>100</b>
              )}
            </td>
            <td />
          </tr>
        </tfoot>
      </Table>
      <Faults reckoning={reckoning} lines={lines} />
      <Adders>
        <Button look="ghost" isDisabled={rates.length === 0} onPress={() => add(labourLine(rates[0]?.id ?? 0), 'text')}>
          + Labour
        </Button>
        <Button look="ghost" onPress={() => add(chargeLine(), 'text')}>
          + Charge
        </Button>
        <Button look="ghost" onPress={() => add(noteLine(), 'text')}>
          + Note
        </Button>
        <Faint>Empty “Back %” follows cost. Alt ↑ ↓ moves a line. ? lists all keys.</Faint>
      </Adders>
    </>
  );
}

/** What keeps the draft from being saved, line by line. */
function Faults({ reckoning, lines }: { reckoning: Reckoning; lines: readonly DraftLine[] }) {
  const faults = [...reckoning.faults].filter(([field]) => field !== 'outputQuantity');
  if (faults.length === 0) return null;
  return (
    <ul role="status" style={{ color: 'var(--short-ink)', margin: '10px 0 0', paddingLeft: 18 }}>
      {faults.map(([field, text]) => {
        const index = Number(field.split('.')[1]);
        return (
          <li key={field}>
            {Number.isNaN(index)
              ? text
              : `Line ${index + 1}${lines[index]?.item ? `, ${lines[index].item.name}` : ''}: ${text}`}
          </li>
        );
      })}
    </ul>
  );
}
