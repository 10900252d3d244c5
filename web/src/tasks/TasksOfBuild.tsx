import type { BuildDetail } from '@yosegi/contract';
import { z } from 'zod';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count } from '../ui/format.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { H2, Part, Section, Stack } from '../ui/space.ts';
import { Faint, Push, Row } from '../ui/text.ts';
import { type TypedScreen, useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { TaskRow } from './TaskRow.tsx';

/** What is to be done on a build, and more that comes up on the bench. */
export function TasksOfBuild({ build, isOpen }: { build: BuildDetail; isOpen: boolean }) {
  const mayWork = useCan('build');
  const screen = useTypedScreen(`add-task.${build.id}`);
  const [isAdding, setAdding] = useTyped(screen, 'open', false);
  const open = build.tasks.filter(({ state }) => state === 'open' || state === 'doing').length;
  return (
    <Section $top={22} aria-label="Tasks">
      <Row $gap={10}>
        <h2>Tasks</h2>
        <Faint>
          {build.tasks.length === 0
            ? 'none so far'
            : open === 0
              ? 'all done'
              : `${count(open, 'task')} open${build.tasksFirst ? '; the build finishes only once they are done' : ''}`}
        </Faint>
        <Push />
        {isOpen && mayWork && (
          <Button look="ghost" onPress={() => setAdding(!isAdding)}>
            Add a task
          </Button>
        )}
      </Row>
      {isAdding && <AddTask buildId={build.id} screen={screen} onDone={() => setAdding(false)} />}
      <Stack $gap={8} $top={6}>
        {build.tasks.map((task) => (
          <TaskRow key={task.id} task={task} isOpen={isOpen && mayWork} />
        ))}
      </Stack>
    </Section>
  );
}

const KIND = z.enum(['labour', 'charge']);

function AddTask({ buildId, screen, onDone }: { buildId: number; screen: TypedScreen; onDone: () => void }) {
  const rates = useQuestion('rates', {}).data ?? [];
  const [kind, setKind] = useTyped(screen, 'kind', 'labour', KIND);
  const [text, setText] = useTyped(screen, 'text', '');
  const [amount, setAmount] = useTyped(screen, 'amount', '');
  const [because, setBecause] = useTyped(screen, 'because', '');
  const [rateId, setRateId] = useTyped(screen, 'rateId', '');
  const add = useCommand(
    'addTask',
    () => {
      onDone();
      screen.forget();
    },
    screen.forget,
  );
  const at = (name: string) => problemAt(add.error, name);
  const submit = () =>
    add.mutate({
      params: { id: buildId },
      body: {
        kind,
        text: text.trim(),
        amount: amount.trim() || '0',
        because: because.trim(),
        rateId: Number(rateId || rates[0]?.id) || null,
      },
    });
  return (
    <Part $top={6}>
      <H2 $bottom={6}>Add a task</H2>
      <Row $gap={8} $wrap $end>
        <Choice
          label="Time or cost"
          value={kind}
          onChange={(next) => setKind(next as 'labour' | 'charge')}
          options={[
            ['labour', 'Our own time'],
            ['charge', 'Bought-in service'],
          ]}
        />
        <Field label="Task" value={text} onChange={setText} error={at('text')} autoFocus />
        <Field
          label={kind === 'labour' ? 'Minutes planned' : 'Price planned'}
          numeric
          value={amount}
          onChange={setAmount}
          error={at('amount')}
        />
        {kind === 'labour' && rates.length > 0 && (
          <Choice
            label="Labour rate"
            value={rateId || String(rates[0]?.id ?? '')}
            onChange={setRateId}
            options={rates.map((rate) => [String(rate.id), rate.name] as const)}
          />
        )}
        <Field label="Reason" value={because} onChange={setBecause} error={at('because')} />
        <Button busy={add.isPending} isDisabled={text.trim() === '' || because.trim() === ''} onPress={submit}>
          Add task
        </Button>
      </Row>
      <ProblemBox error={add.error} shownAt={['text', 'amount', 'because']} />
    </Part>
  );
}
