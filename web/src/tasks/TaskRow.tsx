import type { Task } from '@yosegi/contract';
import { formatDecimal, readForText } from '@yosegi/core/number';
import { z } from 'zod';
import { problemAt, useCommand } from '../api/client.ts';
import { usePerson } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { type Format, useFormat } from '../ui/format.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Tick } from '../ui/Tick.tsx';
import { Faint, Late, Push, Row } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import { useMeant } from '../ui/useMeant.ts';
import { type TypedScreen, useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { OneField } from './OneField.tsx';
import { ServiceForm } from './ServiceForm.tsx';
import { StopClock } from './StopClock.tsx';
import { WhoForm } from './WhoForm.tsx';

interface Props {
  readonly task: Task;
  /** In a list the build and the day stand beside it, and a tick chooses it. */
  readonly isInList?: boolean;
  /** Whether something can still be done about it here. */
  readonly isOpen: boolean;
}

const ADDING = z.enum(['minutes', 'service', 'skip', 'who']).nullable();

/** What can be done about a task right where it is shown: done, minutes, the clock, skipped with a reason. */
export function TaskRow({ task, isInList = false, isOpen }: Props) {
  const format = useFormat();
  const me = usePerson();
  const screen = useTypedScreen(`task.${task.id}`);
  const [adding, setAdding] = useTyped(screen, 'adding', null, ADDING);
  const close = () => {
    setAdding(null);
    screen.forget();
  };
  const change = useCommand('changeTasks', close, screen.forget);
  const start = useCommand('startClock');
  const set = (part: Parameters<typeof change.mutate>[0]['body']['change']) =>
    change.mutate({ body: { tasks: [{ id: task.id, version: task.version }], change: part } });
  const isOver = task.state === 'done' || task.state === 'skipped';
  const mine = task.clocks.find(({ personId }) => personId === me?.id);
  const others = task.clocks.filter(({ personId }) => personId !== me?.id);
  const meant = useMeant<HTMLDivElement>(task.id);
  return (
    <div {...meant}>
      <Row $gap={10} $wrap>
        {isInList ? (
          <Words task={task} isInList />
        ) : (
          <Tick
            isOn={task.state === 'done'}
            onChange={(isOn) => set({ state: isOn ? 'done' : 'open' })}
            isDisabled={!isOpen || task.state === 'skipped'}
          >
            <Words task={task} isInList={false} />
          </Tick>
        )}
        <Push />
        {isOpen && !isOver && (
          <Row $gap={4} $wrap>
            {task.kind === 'labour' &&
              (mine ? (
                <StopClock since={mine.since} />
              ) : (
                <Button busy={start.isPending} onPress={() => start.mutate({ params: { id: task.id }, body: {} })}>
                  Start the clock
                </Button>
              ))}
            <Button look="ghost" onPress={() => setAdding(task.kind === 'labour' ? 'minutes' : 'service')}>
              {task.kind === 'labour' ? 'Enter minutes…' : 'Set supplier, price…'}
            </Button>
            <Button look="ghost" onPress={() => setAdding('who')}>
              Assign…
            </Button>
            <Button look="ghost" onPress={() => setAdding('skip')}>
              Skip…
            </Button>
            {isInList && (
              <Button look="ghost" busy={change.isPending} onPress={() => set({ state: 'done' })}>
                Done
              </Button>
            )}
          </Row>
        )}
        {isOpen && task.state === 'skipped' && (
          <Button look="ghost" onPress={() => set({ state: 'open' })}>
            Reopen
          </Button>
        )}
      </Row>
      {others.map(({ personId, person, since }) => (
        <Faint key={personId}>
          {person} works on it since {format.moment(since)}.
        </Faint>
      ))}
      {adding === 'minutes' && <AddMinutes task={task} screen={screen} onDone={close} />}
      {adding === 'who' && <WhoForm task={task} screen={screen} onDone={close} />}
      {adding === 'service' && <ServiceForm task={task} screen={screen} onDone={close} />}
      {adding === 'skip' && (
        <OneField
          label="Reason for skipping"
          screen={screen}
          start=""
          error={problemAt(change.error, 'change.because')}
          action="Skip task"
          onKeep={(because) => set({ state: 'skipped', because })}
          onClose={close}
        />
      )}
      <ProblemBox error={change.error ?? start.error} shownAt={['change.because']} />
    </div>
  );
}

function Words({ task, isInList }: { task: Task; isInList: boolean }) {
  const format = useFormat();
  return (
    <span>
      <b>{task.text || (task.kind === 'labour' ? 'Labour' : 'Charge')}</b>
      <br />
      <Faint>{factsOf(task, format, isInList).join(' · ')}</Faint>
    </span>
  );
}

function factsOf(task: Task, format: Format, isInList: boolean): string[] {
  // What was finished without a minute written down was booked as planned.
  const minutes = Math.max(Number(task.taken), Number(task.booked));
  return [
    task.kind === 'labour'
      ? `${format.number(String(minutes))} of ${format.number(task.planned)} min`
      : `${format.money(task.price ?? task.planned)}${task.price === null ? ' planned' : ''}`,
    task.person ?? 'unassigned',
    task.due === null || isInList ? '' : `${task.late ? 'late, ' : ''}due ${format.day(task.due)}`,
    task.supplier ? `by ${task.supplier}${task.expectedOn ? `, back ${format.day(task.expectedOn)}` : ''}` : '',
    task.state === 'skipped' ? `skipped: ${task.skippedBecause ?? ''}` : '',
    task.added ? `added by ${task.added.by}: ${task.added.because}` : '',
  ].filter((fact) => fact !== '');
}

function AddMinutes({ task, screen, onDone }: { task: Task; screen: TypedScreen; onDone: () => void }) {
  const add = useCommand('addTime', onDone);
  const left = Math.max(0, Number(readForText(task.planned) - readForText(task.taken)));
  return (
    <>
      <OneField
        label="Minutes worked today"
        screen={screen}
        start={left > 0 ? formatDecimal(left) : ''}
        numeric
        error={problemAt(add.error, 'minutes')}
        action="Add"
        onKeep={(minutes) => add.mutate({ params: { id: task.id }, body: { minutes: minutes.trim(), day: today() } })}
        onClose={onDone}
      />
      <ProblemBox error={add.error} shownAt={['minutes']} />
    </>
  );
}

/** When a task is due, plainly. */
export const DueOf = ({ task }: { task: Task }) => {
  const format = useFormat();
  if (task.due === null) return '–';
  const day = format.day(task.due);
  return task.late ? <Late>{day}</Late> : day;
};
