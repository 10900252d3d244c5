import type { Task } from '@yosegi/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useCommand, useQuestion } from '../api/client.ts';
import { useList } from '../api/list.ts';
import { useCan, usePerson } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Export, type FileColumn } from '../ui/Export.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { count } from '../ui/format.ts';
import { AnswerBody, AnswerPane, Cell, Foot, Grid } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Part } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Lead, Muted, Push, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { DueOf, TaskRow } from './TaskRow.tsx';

/** Everything that is to be done on the bench, mine first. */
export function TasksPage() {
  const me = usePerson();
  const people = useQuestion('people', {}).data ?? [];
  const [show, setShow] = useAddress('show', 'open');
  const [who, setWho] = useAddress('who', '');
  const q = useSought();
  const personId = who === 'me' ? me?.id : Number(who) || undefined;
  const tasks = useList(
    'tasks',
    { show, q: q || undefined, personId, ...(who === 'nobody' ? { unassigned: true } : {}) },
    show !== 'over' && show !== 'all',
  );
  return (
    <AnswerPane>
      <Answer of={tasks}>
        {({ rows, isMore }) => (
          <Tasks rows={mineFirst(rows, me?.id)} isMore={isMore} people={people} more={<More of={tasks.pages} />}>
            <Row $gap={10} $wrap>
              <Part $width={200}>
                <Finder label="Find a task" placeholder="Find a task" />
              </Part>
              <Part $width={170}>
                <Choice
                  label="Which tasks"
                  hideLabel
                  value={show}
                  onChange={setShow}
                  options={[
                    ['open', 'To do'],
                    ['doing', 'Started'],
                    ['late', 'Late'],
                    ['over', 'Done or skipped'],
                    ['all', 'All'],
                  ]}
                />
              </Part>
              <Part $width={170}>
                <Choice
                  label="Whose tasks"
                  hideLabel
                  value={who}
                  onChange={setWho}
                  options={[
                    ['', "Everybody's"],
                    ['me', 'Mine'],
                    ['nobody', 'Unassigned'],
                    ...people.map(({ id, name }) => [String(id), name] as const),
                  ]}
                />
              </Part>
              <Push />
              <Export name="Tasks" columns={FILE} rows={tasks.everyRow} />
            </Row>
          </Tasks>
        )}
      </Answer>
    </AnswerPane>
  );
}

const FILE: readonly FileColumn<Task>[] = [
  { title: 'Build', text: ({ build }) => build },
  { title: 'Product', text: ({ product }) => product },
  { title: 'Task', text: ({ text, kind }) => text || (kind === 'labour' ? 'Labour' : 'Charge') },
  { title: 'Kind', text: ({ kind }) => kind },
  { title: 'Person', text: ({ person }) => person ?? '' },
  { title: 'Due', text: ({ due }) => due ?? '' },
  { title: 'Status', text: ({ state }) => state },
  { title: 'Planned', text: ({ planned }) => planned, isAmount: true },
  { title: 'Minutes so far', text: ({ taken }) => taken, isAmount: true },
  { title: 'Supplier', text: ({ supplier }) => supplier ?? '' },
];

const mineFirst = (rows: readonly Task[], id: number | undefined) =>
  rows.toSorted((a, b) => Number(b.personId === id) - Number(a.personId === id));

interface Props {
  readonly rows: readonly Task[];
  readonly isMore: boolean;
  /** The way to the rest of them. */
  readonly more: React.ReactNode;
  readonly people: readonly { readonly id: number; readonly name: string }[];
  readonly children: React.ReactNode;
}

function Tasks({ rows, isMore, more, people, children }: Props) {
  const mayWork = useCan('build');
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const picked = rows.filter(({ id }) => chosen.has(id));
  const late = rows.filter((task) => task.late).length;
  return (
    <>
      <AnswerBody>
        <div>
          <h1>
            {rows.length === 0
              ? 'Nothing to do.'
              : `${count(rows.length, 'task')}${isMore ? ' and more' : ''}${late > 0 ? `, ${late} late` : ''}.`}
          </h1>
          <Lead>Labour lines and charges of a build are its tasks. Add more on the build.</Lead>
        </div>
        {children}
        {rows.length === 0 ? (
          <EmptyState title="No tasks match">
            Plan a build, or change the filters to see done tasks or someone else’s.
          </EmptyState>
        ) : (
          <Grid $full>
            <thead>
              <tr>
                <th aria-label="Choose" />
                <th>For</th>
                <th>Task</th>
                <th>Due</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((task) => (
                <tr key={task.id}>
                  <td>
                    <Tick
                      label={`Choose ${task.text} of ${task.build}`}
                      isOn={chosen.has(task.id)}
                      onChange={(isOn) => setChosen(withOne(chosen, task.id, isOn))}
                    />
                  </td>
                  <td>
                    <Cell>
                      <Tile code={task.code} size={28} />
                      <span>
                        <Link to={`/build/${task.buildId}`}>{task.build}</Link>
                        <br />
                        <Muted>{task.product}</Muted>
                      </span>
                    </Cell>
                  </td>
                  <td>
                    <TaskRow task={task} isInList isOpen={mayWork} />
                  </td>
                  <td className="one-line">
                    <DueOf task={task} />
                  </td>
                </tr>
              ))}
            </tbody>
          </Grid>
        )}
        {more}
      </AnswerBody>
      {picked.length > 0 && <Many picked={picked} people={people} onDone={() => setChosen(new Set())} />}
    </>
  );
}

function withOne(all: ReadonlySet<number>, id: number, isOn: boolean): ReadonlySet<number> {
  const next = new Set(all);
  if (isOn) next.add(id);
  else next.delete(id);
  return next;
}

interface ManyProps extends Pick<Props, 'people'> {
  readonly picked: readonly Task[];
  readonly onDone: () => void;
}

/** What is done to several tasks at once. */
function Many({ picked, people, onDone }: ManyProps) {
  const change = useCommand('changeTasks', onDone);
  const set = (part: Parameters<typeof change.mutate>[0]['body']['change']) =>
    change.mutate({ body: { tasks: picked.map(({ id, version }) => ({ id, version })), change: part } });
  return (
    <div>
      <ProblemBox error={change.error} />
      <Foot>
        <Muted>{count(picked.length, 'task')} chosen</Muted>
        <Push />
        <Part $width={180}>
          <Choice
            label="Person"
            hideLabel
            value=""
            onChange={(id) => id !== '' && set({ personId: id === 'nobody' ? null : Number(id) })}
            options={[
              ['', 'Assign to…'],
              ['nobody', 'Unassigned'],
              ...people.map(({ id, name }) => [String(id), name] as const),
            ]}
          />
        </Part>
        <Part $width={150}>
          <DayField label="Due on" hideLabel actsAtOnce value="" onChange={(due) => due !== '' && set({ due })} />
        </Part>
        <Button look="go" busy={change.isPending} onPress={() => set({ state: 'done' })}>
          Mark as done
        </Button>
      </Foot>
    </div>
  );
}
