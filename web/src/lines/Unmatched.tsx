import type { Item } from '@yosegi/contract';
import styled from 'styled-components';
import { Button } from '../ui/Button.tsx';
import { count } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Row } from '../ui/text.ts';
import type { PastedRow } from './matchPasted.ts';

const Box = styled.section`
  border-left: 5px solid var(--coming); background: var(--coming-wash); padding: 10px 14px; display: grid; gap: 8px; margin-bottom: 12px;
`;
const Line = styled.div`display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1.6fr) auto; gap: 10px; align-items: center;`;

interface Props {
  readonly rows: readonly PastedRow[];
  readonly onPlace: (row: PastedRow, item: Item) => void;
  readonly onLeaveOut: (row: PastedRow) => void;
}

/** Pasted rows that nobody knows the item of: each is placed or left out by hand, none is dropped silently. */
export function Unmatched({ rows, onPlace, onLeaveOut }: Props) {
  if (rows.length === 0) return null;
  return (
    <Box aria-label="Pasted rows to match">
      <b>{count(rows.length, 'pasted row')} could not be matched. Which item is meant?</b>
      {rows.map((row) => (
        <Line key={row.key}>
          <span>
            “{row.text}” <Faint>· {row.quantity}</Faint>
          </span>
          <Row $gap={6} $wrap>
            {row.likely.map((item) => (
              <Button key={item.id} onPress={() => onPlace(row, item)}>
                <Tile code={item.code} size={20} /> {item.name}
              </Button>
            ))}
            <Part $grow $min={170}>
              <ItemPicker
                label={`Which item is “${row.text}”`}
                hideLabel
                placeholder={row.likely.length > 0 ? 'or another' : 'Code or name, or a new item'}
                canAdd
                onPick={(item) => onPlace(row, item)}
              />
            </Part>
          </Row>
          <Button look="ghost" onPress={() => onLeaveOut(row)}>
            Leave it out
          </Button>
        </Line>
      ))}
    </Box>
  );
}
