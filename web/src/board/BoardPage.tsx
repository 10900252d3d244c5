import {
  DndContext,
  type DragEndEvent,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import type { Board, BoardCard } from '@yosegi/contract';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { useCommand, useQuestion } from '../api/client.ts';
import { useCan, usePerson } from '../api/person.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { Page } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { KeyHint, Late, Lead, Muted, Push, Row } from '../ui/text.ts';
import { beside, cardKey, keyOf, minutesOf, rowsOf, type Spot, shownAt, spotIn, todayWords } from './cells.ts';
import { WorkCard } from './WorkCard.tsx';

const Rows = styled.div`
  display: grid; grid-template-columns: 118px repeat(6, minmax(170px, 1fr)); gap: 1px; background: var(--line-soft); border: 1px solid var(--line-soft);
  margin-top: 14px; overflow-x: auto;
`;
const Head = styled.div<{ $today?: boolean }>`
  background: var(--birch); padding: 7px 9px; font-size: 12.5px; ${({ $today }) => ($today ? 'box-shadow: inset 0 3px var(--honey); font-weight: 600;' : '')}
`;
const Who = styled.div`background: var(--birch); padding: 10px; line-height: 1.3; position: sticky; left: 0; z-index: 1;`;
const Spotted = styled.section<{ $over: boolean }>`
  background: ${({ $over }) => ($over ? 'var(--coming-wash)' : 'var(--sheet)')}; padding: 6px; min-height: 96px; min-width: 0; display: grid; gap: 6px; align-content: start;
`;
/** A cell shows so many cards; more are a press away. */
const MOST = 12;

/** What is to be done on the bench, by person and day; work is dragged to whoever does it, and when. */
export function BoardPage() {
  const board = useQuestion('board', {}, { keep: true });
  return (
    <Page>
      <Answer of={board}>
        {(data) =>
          data.cards.length === 0 ? (
            <EmptyState
              isPage
              title="Nothing to do"
              action={<LinkButton to="/build?plan=new">Plan a build</LinkButton>}
            >
              Planned builds and builds on the bench appear here by person and day until they are finished.
            </EmptyState>
          ) : (
            <Work board={data} />
          )
        }
      </Answer>
    </Page>
  );
}

function Work({ board }: { board: Board }) {
  const format = useFormat();
  const notify = useNotify();
  const me = usePerson()?.id;
  const mayWork = useCan('build');
  const move = useCommand('moveOnBoard');
  const isArmed = useArmed();
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 180, tolerance: 8 } }),
  );
  const rows = rowsOf(board, me);
  /** A card that was moved by keys takes the focus along, for the next move. */
  const followed = useRef<string | null>(null);
  useEffect(() => {
    const card = followed.current && document.querySelector<HTMLElement>(`[data-card="${followed.current}"]`);
    if (!card) return;
    followed.current = null;
    card.focus();
  });
  const to = (card: BoardCard, spot: Spot) => {
    if (!mayWork || move.isPending || keyOf(spot) === keyOf(shownAt(card, board))) return;
    const tasks = card.tasks.map(({ id, version }) => ({ id, version }));
    const build = card.isWhole ? { id: card.buildId, version: card.version } : null;
    const who = board.people.find(({ id }) => id === spot.personId)?.name ?? 'nobody';
    move.mutate(
      { body: { build, tasks, personId: spot.personId, day: spot.day } },
      {
        onSuccess: () =>
          notify({ text: `${card.number}: ${who}${spot.day ? `, ${format.day(spot.day)}` : ', no date'}.` }),
      },
    );
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    letGo();
    const card = board.cards.find((one) => cardKey(one) === active.id);
    if (card && over) to(card, spotIn(String(over.id)));
  };
  const byKey = (card: BoardCard, event: KeyboardEvent) => {
    if (!event.altKey) return;
    const spot = beside(shownAt(card, board), event.key, board, me);
    if (!spot) return;
    event.preventDefault();
    followed.current = cardKey({ ...card, ...spot });
    to(card, spot);
  };
  return (
    <>
      <Row $wrap>
        <div>
          <h1>{todayWords(board, me)}</h1>
          <Lead>
            Drag work to a person and a day. <KeyHint>Alt and an arrow key move the selected card.</KeyHint>
          </Lead>
        </div>
        <Push />
        <LinkButton to="/build">Builds</LinkButton>
        <LinkButton to="/build/tasks">Tasks</LinkButton>
      </Row>
      <ProblemBox error={move.error} />
      <DndContext sensors={sensors} collisionDetection={pointerWithin} onDragEnd={dropped}>
        <Rows>
          <Head />
          {board.days.map((day) => (
            <Head key={day} $today={day === board.today}>
              {day === board.today ? `Today, ${format.day(day)}` : format.day(day)}
            </Head>
          ))}
          <Head>Later, or no date</Head>
          {rows.map((person) => (
            <PersonRow
              key={person.id ?? 'nobody'}
              person={person}
              isMe={person.id === me}
              board={board}
              isArmed={isArmed}
              mayMove={mayWork}
              onKey={byKey}
            />
          ))}
        </Rows>
      </DndContext>
    </>
  );
}

/** Dragging is made ready when the board has been painted: all its cards and cells at once would hold the picture up. */
function useArmed(): boolean {
  const [isArmed, setArmed] = useState(false);
  useEffect(() => {
    // Two pictures later nobody has a hand on a card yet.
    let frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => {
        frame = requestAnimationFrame(() => setArmed(true));
      });
    });
    return () => cancelAnimationFrame(frame);
  }, []);
  return isArmed;
}

/** Letting a card go over its own link is no wish to open it. */
function letGo(): void {
  const prevent = (event: Event) => event.preventDefault();
  window.addEventListener('click', prevent, { capture: true, once: true });
  setTimeout(() => window.removeEventListener('click', prevent, { capture: true }), 60);
}

interface PersonRowProps {
  readonly person: { readonly id: number | null; readonly name: string };
  readonly isMe: boolean;
  readonly board: Board;
  /** Cards can be taken and let go. */
  readonly isArmed: boolean;
  readonly mayMove: boolean;
  readonly onKey: (card: BoardCard, event: KeyboardEvent) => void;
}

function PersonRow({ person, isMe, board, isArmed, mayMove, onKey }: PersonRowProps) {
  const own = board.cards.filter(({ personId }) => personId === person.id);
  return (
    <>
      <Who>
        <b>{isMe ? 'You' : person.name}</b>
        <br />
        <Muted>{own.length === 0 ? 'free' : `${own.length} to do`}</Muted>
      </Who>
      {[...board.days, null].map((day) => {
        const spot = { personId: person.id, day };
        const key = keyOf(spot);
        const cards = own.filter((card) => keyOf(shownAt(card, board)) === key);
        return (
          <SpotCell
            key={key}
            spot={spot}
            cards={cards}
            board={board}
            isArmed={isArmed}
            mayMove={mayMove}
            onKey={onKey}
            name={person.name}
          />
        );
      })}
    </>
  );
}

interface SpotCellProps extends Pick<PersonRowProps, 'board' | 'isArmed' | 'mayMove' | 'onKey'> {
  readonly spot: Spot;
  readonly name: string;
  readonly cards: readonly BoardCard[];
}

/** A cell takes cards once the board is on the screen. */
const SpotCell = (props: SpotCellProps) => (props.isArmed ? <DropCell {...props} /> : <CellBody {...props} />);

function DropCell(props: SpotCellProps) {
  const { setNodeRef, isOver } = useDroppable({ id: keyOf(props.spot) });
  return <CellBody {...props} dropRef={setNodeRef} isOver={isOver} />;
}

interface CellBodyProps extends SpotCellProps {
  readonly dropRef?: (element: HTMLElement | null) => void;
  readonly isOver?: boolean;
}

function CellBody({ spot, name, cards, board, isArmed, mayMove, onKey, dropRef, isOver = false }: CellBodyProps) {
  const format = useFormat();
  const [isAll, setAll] = useState(false);
  const minutes = Math.round(Number(minutesOf(cards)));
  const shown = isAll ? cards : cards.slice(0, MOST);
  const isTooMuch = spot.personId !== null && spot.day !== null && minutes > board.benchMinutes;
  return (
    <Spotted
      ref={dropRef}
      $over={isOver}
      aria-label={`${name}, ${spot.day ? format.day(spot.day) : 'later or no date'}`}
    >
      {minutes > 0 && (
        <small>
          {isTooMuch ? (
            <Late>
              {minutes} of {board.benchMinutes} min
            </Late>
          ) : (
            <Muted>
              {spot.personId !== null && spot.day !== null
                ? `${minutes} of ${board.benchMinutes} min`
                : `${minutes} min`}
            </Muted>
          )}
        </small>
      )}
      {shown.map((card) => (
        <WorkCard key={cardKey(card)} card={card} today={board.today} mayMove={mayMove && isArmed} onKey={onKey} />
      ))}
      {cards.length > shown.length && (
        <Button look="ghost" onPress={() => setAll(true)}>
          {cards.length - shown.length} more
        </Button>
      )}
    </Spotted>
  );
}
