import type { RepairDetail } from '@yosegi/contract';
import { canDo } from '@yosegi/core/repairs';
import { useEffect, useRef } from 'react';
import { z } from 'zod';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { AddPart } from '../builds/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { Muted, Row } from '../ui/text.ts';
import { type TypedScreen, useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

const Open = z.enum(['estimate', 'agree', 'decline', 'give-back', 'part']).nullable();

/** What is done with a repair next, and what else could be. */
export function NextStep({ repair }: { repair: RepairDetail }) {
  const format = useFormat();
  const notify = useNotify();
  const mayWork = useCan('build');
  const maySell = useCan('sell');
  const screen = useTypedScreen(`repair-step.${repair.id}`);
  const [open, setOpen] = useTyped(screen, 'open', null, Open);
  const done = () => {
    setOpen(null);
    screen.forget();
  };
  const build = useQuestion('build', { params: { id: repair.buildId } }).data;
  const start = useCommand('startBuild');
  const estimate = useCommand('estimateRepair', done);
  const agree = useCommand('agreeRepair', done);
  const decline = useCommand('declineRepair', done);
  const back = useCommand('takeRepairBack');
  const give = useCommand('giveBack', () => {
    done();
    notify({
      text: `${repair.number} given back to ${repair.customer}.`,
      to: [`/print/repair-report/${repair.id}`, 'Print the report'],
    });
  });
  const { version, state } = repair;
  const steps = useRef<HTMLDivElement>(null);
  const before = useRef(state);
  const params = { id: repair.id };
  const failed = [start, estimate, agree, decline, give, back].find(({ error }) => error)?.error ?? null;
  const isOpen = build?.state === 'planned' || build?.state === 'on-bench';
  const may = {
    'give-back': maySell && canDo('give-back', state),
    agree: maySell && state === 'asked',
    estimate: maySell && canDo('ask', state) && !repair.warranty,
    part: mayWork && isOpen,
    decline: maySell && canDo('decline', state),
  };
  // What was being filled in when somebody else went on with it is over.
  const asked = open && may[open] ? open : null;
  // A step that is done leads to the one that has become next, not to what the last one left beside it; what it came to may
  // be known here before its answer closes it.
  useEffect(() => {
    if (asked !== null) return;
    const isHere = steps.current?.contains(document.activeElement) || document.activeElement === document.body;
    if (before.current !== state && isHere) steps.current?.querySelector<HTMLElement>('button, a')?.focus();
    before.current = state;
  }, [state, asked]);
  return (
    <>
      <Row ref={steps} $gap={8} $wrap>
        {may['give-back'] && (
          <Button look="go" onPress={() => setOpen('give-back')}>
            Give back…
          </Button>
        )}
        {mayWork && canDo('finish', state) && (
          <LinkButton look="go" to={`/build/${repair.buildId}/finish`}>
            Finish…
          </LinkButton>
        )}
        {mayWork && canDo('start', state) && build && (
          <Button
            look="go"
            busy={start.isPending}
            onPress={() => start.mutate({ params: { id: build.id }, body: { version: build.version } })}
          >
            Start repair
          </Button>
        )}
        {may.agree && (
          <Button look="go" onPress={() => setOpen('agree')}>
            Record agreement…
          </Button>
        )}
        {may.estimate && (
          <Button onPress={() => setOpen('estimate')}>
            {repair.estimate === null ? 'Estimate…' : 'Change the estimate…'}
          </Button>
        )}
        {may.part && <Button onPress={() => setOpen('part')}>Add a part</Button>}
        {may.decline && (
          <Button look="ghost" onPress={() => setOpen('decline')}>
            Don’t repair…
          </Button>
        )}
        {maySell && state === 'given-back' && (
          <Button look="ghost" busy={back.isPending} onPress={() => back.mutate({ params, body: { version } })}>
            Not collected after all
          </Button>
        )}
      </Row>
      {asked === 'part' && build && <AddPart build={build} screen={screen} onDone={done} />}
      {asked === 'estimate' && (
        <Asked
          screen={screen}
          label="Estimate for the customer"
          start={repair.estimate ?? ''}
          hint={`Our cost so far: ${format.money(repair.cost.total)}.`}
          action="Save estimate"
          busy={estimate.isPending}
          error={problemAt(estimate.error, 'estimate')}
          onKeep={(text) => estimate.mutate({ params, body: { version, estimate: text } })}
          onClose={done}
        />
      )}
      {asked === 'agree' && (
        <Asked
          screen={screen}
          label="Agreed price"
          start={repair.estimate ?? ''}
          action="Save agreed price"
          busy={agree.isPending}
          error={problemAt(agree.error, 'price')}
          onKeep={(text) => agree.mutate({ params, body: { version, price: text } })}
          onClose={done}
        />
      )}
      {asked === 'decline' && (
        <Asked
          screen={screen}
          label="Reason for not repairing"
          isText
          start=""
          hint="Parts on its bench go back to their bins."
          action="Return unrepaired"
          busy={decline.isPending}
          error={problemAt(decline.error, 'because')}
          onKeep={(text) => decline.mutate({ params, body: { version, because: text } })}
          onClose={done}
        />
      )}
      {asked === 'give-back' && (
        <Asked
          screen={screen}
          label="Charge to the customer"
          start={repair.warranty || repair.declined !== null ? '0' : (repair.price ?? repair.estimate ?? '')}
          hint={`Cost so far: ${format.money(repair.cost.total)}.${repair.accessories ? ` Accessories: ${repair.accessories}.` : ''}`}
          action={`Give back to ${repair.customer}`}
          busy={give.isPending}
          error={problemAt(give.error, 'charged')}
          onKeep={(text) => give.mutate({ params, body: { version, charged: text } })}
          onClose={done}
        />
      )}
      <ProblemBox error={failed} shownAt={['estimate', 'price', 'because', 'charged']} />
    </>
  );
}

interface AskedProps {
  readonly screen: TypedScreen;
  readonly label: string;
  readonly start: string;
  readonly isText?: boolean;
  readonly hint?: string;
  readonly action: string;
  readonly busy: boolean;
  readonly error: string | undefined;
  readonly onKeep: (text: string) => void;
  readonly onClose: () => void;
}

/** One thing that a step asks for. */
function Asked({ screen, label, start, isText = false, hint, action, busy, error, onKeep, onClose }: AskedProps) {
  const [text, setText] = useTyped(screen, label, start);
  const keep = () => text.trim() !== '' && onKeep(text.trim());
  return (
    <Row $gap={8} $wrap $end $top={8}>
      <Part $width={isText ? 340 : 220}>
        <Field
          label={label}
          autoFocus
          numeric={!isText}
          value={text}
          onChange={setText}
          error={error}
          onKeyDown={(event) => {
            if (event.key === 'Enter') keep();
            if (event.key === 'Escape') onClose();
          }}
        />
      </Part>
      <Button busy={busy} isDisabled={text.trim() === ''} onPress={keep}>
        {action}
      </Button>
      <Button look="ghost" onPress={onClose}>
        Cancel
      </Button>
      {hint && <Muted>{hint}</Muted>}
    </Row>
  );
}
