import styled from 'styled-components';
import { problemOf, useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Para } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Push, Row } from '../ui/text.ts';
import { When } from '../ui/When.tsx';

const Box = styled.section`background: var(--sheet); border: 1px solid var(--line-soft); border-left: 5px solid var(--short); padding: 14px 16px; margin: 16px 0 0; display: grid; gap: 8px;`;

/** Bins in which a picker found less than the books say: no run leads there for it until it is counted. */
export function Wishes({ onBegun }: { onBegun: (id: number) => void }) {
  const format = useFormat();
  const wishes = useQuestion('countWishes', {}).data ?? [];
  const begin = useCommand('beginCount', ({ id }) => onBegun(id));
  const settle = useCommand('settleWish');
  const problem = problemOf(begin.error ?? settle.error);
  if (wishes.length === 0) return null;
  return (
    <Box aria-label="Bins to count">
      <Row $wrap>
        <h2>
          {count(wishes.length, 'bin')} {wishes.length === 1 ? 'holds' : 'hold'} less than the books show.
        </h2>
        <Push />
        <Button look="go" busy={begin.isPending} onPress={() => begin.mutate({ body: { wishes: true } })}>
          Count {wishes.length === 1 ? 'it' : 'them'} now
        </Button>
      </Row>
      {wishes.map((wish) => (
        <Row key={wish.id} $gap={10} $wrap>
          <Tile code={wish.code} size={28} />
          <span>
            <b>{wish.bin}</b> · {wish.name}
            {wish.lot && ` · lot ${wish.lot}`}
            <br />
            <Faint>
              {format.quantity(wish.booked, wish.unit, wish.decimals)} booked · {wish.by}, <When at={wish.at} />
            </Faint>
          </span>
          <Push />
          <Button
            look="ghost"
            aria-label={`Mark as correct: ${wish.name} in ${wish.bin}`}
            onPress={() => settle.mutate({ params: { id: wish.id }, body: {} })}
          >
            Mark as correct
          </Button>
        </Row>
      ))}
      {problem && <Para role="alert">{problem.detail}</Para>}
    </Box>
  );
}
