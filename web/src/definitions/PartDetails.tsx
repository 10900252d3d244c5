import type { PartItem } from '@yosegi/contract';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Cell } from '../ui/layout.ts';
import { NumberInput } from '../ui/NumberInput.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Push, Row } from '../ui/text.ts';
import type { LineEdit } from './DraftRow.tsx';
import type { DraftLine } from './draft.ts';

const Box = styled.div`
  background: var(--paper); border-left: 4px solid var(--honey); padding: 8px 12px 10px; display: grid; gap: 8px; margin: 2px 0 6px;
  input, select { background: var(--field); border-color: var(--line); }
`;
const Line = styled.div`display: grid; grid-template-columns: 20px minmax(0, 1fr) 150px auto; gap: 8px; align-items: center;`;

interface Props {
  readonly line: DraftLine;
  readonly item: PartItem;
  readonly set: (part: LineEdit, tag?: string) => void;
  readonly fault: (name: string) => string | undefined;
  readonly onClose: () => void;
}

/** What may stand in for a part, the best first, and the bin it is taken from before all others. */
export function PartDetails({ line, item, set, fault, onClose }: Props) {
  const format = useFormat();
  const stores = useQuestion('stores', {}).data ?? [];
  const { alternates } = line;
  const change = (at: number, ratio: string) =>
    set(
      (now) => ({ alternates: now.alternates.map((one, index) => (index === at ? { ...one, ratio } : one)) }),
      `ratio${at}`,
    );
  const swap = (at: number, to: number) => {
    if (to < 0 || to >= alternates.length) return;
    set((now) => {
      const next = [...now.alternates];
      next.splice(to, 0, ...next.splice(at, 1));
      return { alternates: next };
    });
  };
  return (
    <Box
      role="group"
      aria-label={`Alternates of ${item.name}`}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose();
      }}
    >
      <Row>
        <b>Instead of {item.name}</b>
        <Faint>best first; the ratio is how much replaces one {item.unit}</Faint>
        <Push />
        <Button look="ghost" onPress={onClose}>
          Done
        </Button>
      </Row>
      {alternates.map((alternate, index) => (
        <Line key={alternate.item.id}>
          <Faint>{index + 1}</Faint>
          <Cell>
            <Tile code={alternate.item.code} size={24} />
            <span>
              <b>{alternate.item.name}</b>{' '}
              <Faint>
                {alternate.item.code} ·{' '}
                {format.quantity(alternate.item.free, alternate.item.unit, alternate.item.decimals)} free ·{' '}
                {format.unitCost(alternate.item.averageCost)}
              </Faint>
            </span>
          </Cell>
          <Row $gap={5}>
            <NumberInput
              aria-label={`Ratio of ${alternate.item.name}`}
              aria-invalid={fault(`alternates.${index}.ratio`) !== undefined}
              value={alternate.ratio}
              onChange={(ratio) => change(index, ratio)}
            />
            <Faint $oneLine>
              {alternate.item.unit} for 1 {item.unit}
            </Faint>
            {fault(`alternates.${index}.ratio`) && <Late role="alert">{fault(`alternates.${index}.ratio`)}</Late>}
          </Row>
          <Row $gap={0}>
            <Button look="ghost" aria-label={`Prefer ${alternate.item.name}`} onPress={() => swap(index, index - 1)}>
              <ArrowUp size={15} aria-hidden />
            </Button>
            <Button look="ghost" aria-label={`Put ${alternate.item.name} later`} onPress={() => swap(index, index + 1)}>
              <ArrowDown size={15} aria-hidden />
            </Button>
            <Button
              look="ghost"
              aria-label={`Remove alternate ${alternate.item.name}`}
              onPress={() => set((now) => ({ alternates: now.alternates.filter((_, at) => at !== index) }))}
            >
              <X size={15} aria-hidden />
            </Button>
          </Row>
          {fault(`alternates.${index}.itemId`) && <Late>{fault(`alternates.${index}.itemId`)}</Late>}
        </Line>
      ))}
      <Row $gap={14}>
        <Part $grow>
          <ItemPicker
            label={`Add an alternate to ${item.name}`}
            hideLabel
            placeholder="Add an alternate: code or name"
            autoFocus
            canAdd
            onPick={(picked) => {
              if (picked.id !== item.id && !alternates.some((one) => one.item.id === picked.id))
                set({ alternates: [...alternates, { item: picked, ratio: '1' }] });
            }}
          />
        </Part>
        <Row $gap={5}>
          <Part $width={64}>
            <NumberInput
              aria-label={`Tolerance of ${item.name} in percent`}
              aria-invalid={fault('tolerance') !== undefined}
              value={line.tolerance}
              placeholder="any"
              onChange={(tolerance) => set({ tolerance }, 'tolerance')}
            />
          </Part>
          <Faint $oneLine>% off the plan, then a reason</Faint>
          {fault('tolerance') && <Late role="alert">{fault('tolerance')}</Late>}
        </Row>
        <Part $width={230}>
          <Choice
            label={`Bin that ${item.name} is taken from first`}
            hideLabel
            value={String(line.fromBinId ?? '')}
            onChange={(value) => set({ fromBinId: value === '' ? null : Number(value) })}
            options={[
              ['', 'taken from any bin'],
              ...shelfOptions(stores).map(([id, name]) => [id, `from ${name} first`] as const),
            ]}
          />
        </Part>
      </Row>
    </Box>
  );
}
