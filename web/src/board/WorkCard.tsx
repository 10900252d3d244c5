import { useDraggable } from '@dnd-kit/core';
import { CSS } from '@dnd-kit/utilities';
import type { BoardCard } from '@yosegi/contract';
import { type KeyboardEvent, memo } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { type Format, useFormat } from '../ui/format.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late } from '../ui/text.ts';
import { cardKey } from './cells.ts';

const Card = styled.article<{ $edge: string; $held: boolean }>`
  border: 1px solid var(--line-soft); border-left: 5px solid var(--${({ $edge }) => $edge}); background: var(--paper); border-radius: 2px; line-height: 1.25;
  touch-action: manipulation; ${({ $held }) => ($held ? 'position: relative; z-index: 5; box-shadow: 0 8px 24px var(--shade); opacity: 0.92;' : '')}
`;
const Open = styled(Link)`
  display: grid; grid-template-columns: 30px minmax(0, 1fr); gap: 8px; padding: 8px; min-height: 60px; color: inherit; text-decoration: none; font-size: 13.5px;
  &:hover b { text-decoration: underline; } b { display: block; }
`;

interface Props {
  readonly card: BoardCard;
  readonly today: string;
  readonly mayMove: boolean;
  readonly onKey: (card: BoardCard, event: KeyboardEvent) => void;
}

/** What one person does on one day of one build: what it is, how long, and what keeps it from going on. */
export const WorkCard = memo((props: Props) => (props.mayMove ? <DragCard {...props} /> : <CardBody {...props} />));

function DragCard(props: Props) {
  const drag = useDraggable({ id: cardKey(props.card) });
  return <CardBody {...props} drag={drag} />;
}

interface CardBodyProps extends Props {
  readonly drag?: ReturnType<typeof useDraggable>;
}

function CardBody({ card, today, onKey, drag }: CardBodyProps) {
  const format = useFormat();
  const blocked = card.blocks[0];
  const isLate = card.day !== null && card.day < today;
  return (
    <Card
      ref={drag?.setNodeRef}
      $edge={blocked ? 'short' : card.state === 'on-bench' ? 'honey' : 'moss'}
      $held={drag?.isDragging ?? false}
      style={{ transform: CSS.Translate.toString(drag?.transform ?? null) }}
      {...drag?.listeners}
    >
      <Open
        to={card.repairId === null ? `/build/${card.buildId}` : `/build/repairs/${card.repairId}`}
        draggable={false}
        data-card={cardKey(card)}
        aria-keyshortcuts="Alt+ArrowUp Alt+ArrowDown Alt+ArrowLeft Alt+ArrowRight"
        onKeyDown={(event) => onKey(card, event)}
      >
        <Tile code={card.code} size={30} />
        <span>
          <b>{titleOf(card, format)}</b>
          <Faint>{factsOf(card, format).join(' · ')}</Faint>
          {!card.isWhole && (
            <>
              <br />
              {tasksOf(card)}
            </>
          )}
          {isLate && (
            <>
              <br />
              <Late>was for {format.day(card.day ?? '')}</Late>
            </>
          )}
          {blocked && (
            <>
              <br />
              <Late>
                {blockWords(blocked, format)}
                {card.blocks.length > 1 && `, and ${card.blocks.length - 1} more`}
              </Late>
            </>
          )}
        </span>
      </Open>
    </Card>
  );
}

const titleOf = (card: BoardCard, format: Format) =>
  card.repairId === null ? `${format.number(card.quantity)} × ${card.name}` : `Repair: ${card.name}`;

/** So many tasks are named. */
const MOST_NAMED = 3;

function tasksOf({ tasks }: BoardCard): string {
  const names = tasks.slice(0, MOST_NAMED).map(({ text, kind }) => text || (kind === 'labour' ? 'Labour' : 'Charge'));
  const more = tasks.length - names.length;
  return `${names.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}

const factsOf = (card: BoardCard, format: Format): string[] =>
  [
    card.number,
    card.customer ? `for ${card.customer}` : '',
    Number(card.minutes) > 0 ? `${Math.round(Number(card.minutes))} min` : '',
    card.toPick > 0 ? `${card.toPick} to pick` : '',
    card.due ? `due ${format.day(card.due)}` : '',
    card.tasks.some(({ isDoing }) => isDoing) ? 'started' : '',
  ].filter((fact) => fact !== '');

function blockWords(block: BoardCard['blocks'][number], format: Format): string {
  if (block.kind === 'customer') return `needs ${block.name} to agree`;
  if (block.kind === 'service') return `${block.name} is back from ${block.supplier} ${format.day(block.comesOn)}`;
  const many = (quantity: string) =>
    block.unit === 'each' ? `${format.number(quantity)} ×` : `${format.number(quantity)} ${block.unit} of`;
  if (block.kind === 'held') return `${many(block.quantity)} ${block.name} on the bench is held`;
  const when = block.comesOn ? `, comes ${format.day(block.comesOn)}` : '';
  return `short of ${many(block.short)} ${block.name}${when}`;
}
