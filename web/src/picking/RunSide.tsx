import type { RunDetail } from '@yosegi/contract';
import { useState } from 'react';
import { Dialog } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { problemOf, useCommand } from '../api/client.ts';
import { LabelButton } from '../devices/index.ts';
import { Button } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { DialogCard, Overlay } from '../ui/Modal.tsx';
import { useNotify } from '../ui/Notice.ts';
import { Para, Section } from '../ui/space.ts';
import { Faint, Late, Muted, Row } from '../ui/text.ts';
import { When } from '../ui/When.tsx';
import { Missing } from './Missing.tsx';
import { PutBack } from './PutBack.tsx';
import { Slot } from './phoneLook.ts';
import { useEndRun } from './RunOver.tsx';

const Side = styled.aside`display: grid; grid-template-columns: minmax(0, 1fr); gap: 14px; align-content: start;`;
/** The most of what was picked that is shown. */
const MOST = 8;

/** Whom a run serves, who walks it, what is on no shelf, and what was picked. */
export function RunSide({ run, isWaiting }: { run: RunDetail; isWaiting: boolean }) {
  const format = useFormat();
  const end = useEndRun(run);
  const [puttingBack, setPuttingBack] = useState(false);
  const problem = problemOf(end.error);
  return (
    <Side>
      <Section>
        <h3>Destinations</h3>
        {run.goals.map((goal) => (
          <Row key={`${goal.kind}:${goal.id}`} $gap={10} $top={8}>
            <Slot>{goal.slot}</Slot>
            <span>
              <Link to={goal.kind === 'build' ? `/build/${goal.id}` : `/orders/${goal.id}`}>{goal.number}</Link> ·{' '}
              {goal.name}
              <br />
              <Faint>
                {goal.place}
                {goal.due && ` · ${goal.kind === 'order' ? 'wanted' : 'due'} ${format.day(goal.due)}`} ·{' '}
                {goal.over ?? (goal.openLines === 0 ? 'all picked' : `${count(goal.openLines, 'line')} open`)}
              </Faint>
            </span>
          </Row>
        ))}
        <Row $top={10} $wrap>
          <LabelButton ask={{ runId: run.id }}>Labels for benches and parcels</LabelButton>
        </Row>
      </Section>
      {run.claims.length > 0 && (
        <Section>
          <h3>Pickers</h3>
          {run.claims.map(({ personId, person, key, at }) => (
            <Para key={personId}>
              {person} <Muted>at {run.stops.find((stop) => stop.key === key)?.bin ?? 'a stop that is done'}, </Muted>
              <When at={at} />
            </Para>
          ))}
        </Section>
      )}
      <Missing run={run} />
      {run.passed.length > 0 && (
        <Section>
          <h3>Not reached</h3>
          {run.passed.map(({ binId, bin, itemId, item, by }) => (
            <Para key={`${binId}:${itemId}`}>
              <Late>{bin}</Late> for {item}: {by} found less than the books show.{' '}
              <Link to="/stock/counts">Count it</Link>
            </Para>
          ))}
        </Section>
      )}
      {run.picks.length > 0 && (
        <Section>
          <h3>Picked</h3>
          {run.picks.slice(0, MOST).map((pick) => (
            <OnePick key={pick.act} pick={pick} />
          ))}
        </Section>
      )}
      <Row $wrap>
        {run.brought.length > 0 && <Button onPress={() => setPuttingBack(true)}>Put back…</Button>}
        <Button busy={end.isPending} isDisabled={isWaiting} onPress={end.go}>
          End the run
        </Button>
      </Row>
      {problem && <Para role="alert">{problem.detail}</Para>}
      {puttingBack && (
        <Overlay isOpen isDismissable onOpenChange={(isOpen) => !isOpen && setPuttingBack(false)}>
          <DialogCard>
            <Dialog aria-label="Put back">
              <PutBack run={run} onDone={() => setPuttingBack(false)} />
            </Dialog>
          </DialogCard>
        </Overlay>
      )}
    </Side>
  );
}

function OnePick({ pick }: { pick: RunDetail['picks'][number] }) {
  const notify = useNotify();
  const undo = useCommand('undoDocument', ({ number }) => notify({ text: `Undone by ${number}.` }));
  const problem = problemOf(undo.error);
  return (
    <Para $top={6}>
      <Link to={`/stock/documents/${pick.act}`}>{pick.number}</Link> {pick.says}
      <br />
      <Faint>
        {pick.person}, <When at={pick.at} />
        {pick.undone && ' · undone'}
      </Faint>{' '}
      {!pick.undone && (
        <Button
          look="ghost"
          aria-label={`Undo ${pick.number}`}
          busy={undo.isPending}
          onPress={() => undo.mutate({ params: { id: pick.act }, body: {} })}
        >
          Undo
        </Button>
      )}
      {problem && <span role="alert">{problem.detail}</span>}
    </Para>
  );
}
