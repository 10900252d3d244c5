import type { RepairDetail } from '@yosegi/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { BuildLines } from '../builds/index.ts';
import { LabelButton } from '../devices/index.ts';
import { jobPath } from '../jobs/index.ts';
import { TasksOfBuild } from '../tasks/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { useFormat } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import { BigNumber, KeyValue, Margin, Sheet, SheetAndMargin, SheetHead } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { H2, Para, Section } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Muted, Push, Row } from '../ui/text.ts';
import { When } from '../ui/When.tsx';
import { NextStep } from './NextStep.tsx';
import { standsAs, toneOf } from './words.ts';

const ChangeForm = later(() => import('./ChangeForm.tsx'), 'ChangeForm');

/** One repair: what is wrong, what was agreed, its work, and what it costs and brings. */
export function RepairSheet({ repair }: { repair: RepairDetail }) {
  const format = useFormat();
  const mayWork = useCan('build');
  const [isChanging, setChanging] = useState(false);
  const isHere = repair.state !== 'given-back';
  return (
    <SheetAndMargin>
      <Sheet>
        <SheetHead>
          <Tile code={repair.code} size={52} />
          <div>
            <h1>
              {repair.name} of {repair.customer}
            </h1>
            <Lead>
              {repair.number} · <Chip $tone={toneOf(repair)}>{standsAs(repair)}</Chip>
              {repair.serial && ` · serial ${repair.serial}`}
              {repair.wantedOn && (
                <>
                  {' · wanted '}
                  {repair.late ? <Late>{format.day(repair.wantedOn)}</Late> : <b>{format.day(repair.wantedOn)}</b>}
                </>
              )}
            </Lead>
          </div>
          <Push />
          {isHere && mayWork && <Button onPress={() => setChanging(!isChanging)}>Change</Button>}
        </SheetHead>
        <Para $bottom={12}>
          {repair.fault}
          {repair.accessories && <Muted> Accessories: {repair.accessories}.</Muted>}
        </Para>
        {isChanging && <ChangeForm repair={repair} onDone={() => setChanging(false)} />}
        <NextStep repair={repair} />
        <Work repair={repair} />
        {repair.report && (
          <Section $top={22}>
            <H2 $bottom={6}>Work done</H2>
            <Para>{repair.report}</Para>
          </Section>
        )}
        <Row $top={18} $wrap>
          <LinkButton look="ghost" to={`/print/repair-in/${repair.id}`}>
            Intake receipt
          </LinkButton>
          <LinkButton look="ghost" to={`/print/repair-estimate/${repair.id}`}>
            Estimate
          </LinkButton>
          <LinkButton look="ghost" to={`/print/repair-report/${repair.id}`}>
            Repair report
          </LinkButton>
          <LinkButton look="ghost" to={`/print/bench/${repair.buildId}`}>
            Bench sheet
          </LinkButton>
          <LabelButton look="ghost" ask={{ repairId: repair.id }}>
            Label
          </LabelButton>
        </Row>
      </Sheet>
      <About repair={repair} />
    </SheetAndMargin>
  );
}

/** Its parts and tasks, as on any bench. */
function Work({ repair }: { repair: RepairDetail }) {
  const build = useQuestion('build', { params: { id: repair.buildId } });
  return (
    <Answer of={build}>
      {(data) => {
        const isOpen = data.state === 'planned' || data.state === 'on-bench';
        return (
          <Section $top={18} aria-label="Work">
            {data.lines.some(({ kind }) => kind === 'part') ? (
              <BuildLines build={data} isPartsOnly />
            ) : (
              <Muted>{isOpen ? 'No parts needed so far.' : 'No parts used.'}</Muted>
            )}
            <TasksOfBuild build={data} isOpen={isOpen} />
          </Section>
        );
      }}
    </Answer>
  );
}

function About({ repair }: { repair: RepairDetail }) {
  const format = useFormat();
  const { cost } = repair;
  const isOver = repair.state === 'given-back';
  return (
    <Margin aria-label="Repair details">
      <h2>{isOver ? 'Earnings' : 'Total'}</h2>
      {isOver && repair.margin !== null ? (
        <>
          <BigNumber $top={6}>{format.money(repair.margin)}</BigNumber>
          <Muted>
            {repair.warranty ? 'under warranty: its cost is ours' : `charged ${format.money(repair.charged ?? '0')}`}
          </Muted>
        </>
      ) : (
        <>
          <BigNumber $top={6}>{format.money(cost.total)}</BigNumber>
          <Muted>
            {repair.state === 'ready' ? 'cost' : 'cost so far'}
            {repair.price !== null && `; ${format.money(repair.price)} agreed`}
            {repair.price === null && repair.estimate !== null && `; the estimate is ${format.money(repair.estimate)}`}
            {repair.warranty && '; under warranty, so nothing is charged'}
          </Muted>
        </>
      )}
      <KeyValue>
        Parts <b>{format.money(cost.parts)}</b>
      </KeyValue>
      <KeyValue>
        Labour <b>{format.money(cost.labour)}</b>
      </KeyValue>
      <KeyValue>
        Charges <b>{format.money(cost.charges)}</b>
      </KeyValue>
      <H2 $top={22}>Location</H2>
      {isOver ? (
        <Muted>Back with the customer.</Muted>
      ) : (
        <KeyValue>
          {repair.store} <b>{repair.bin}</b>
        </KeyValue>
      )}
      {repair.jobTag && (
        <KeyValue>
          Job <Link to={jobPath(repair.jobTag)}>{repair.jobTag}</Link>
        </KeyValue>
      )}
      {(repair.sold || repair.earlier.length > 0) && <H2 $top={22}>This serial number</H2>}
      {repair.sold && (
        <KeyValue>
          <Link to={`/stock/documents/${repair.sold.documentId}`}>
            sold {format.day(repair.sold.on)} to {repair.sold.customer}
          </Link>
          {repair.sold.warrantyUntil && <Faint>warranty until {format.day(repair.sold.warrantyUntil)}</Faint>}
        </KeyValue>
      )}
      {repair.earlier.map((before) => (
        <KeyValue key={before.id}>
          <Link to={`/build/repairs/${before.id}`}>
            {before.number} · {before.fault}
          </Link>
          {before.givenBackAt && (
            <Faint>
              <When at={before.givenBackAt} />
            </Faint>
          )}
        </KeyValue>
      ))}
      {repair.serialId && (
        <Para $top={6}>
          <Link to={`/stock/serials/${repair.serialId}`}>Everything about {repair.serial}</Link>
        </Para>
      )}
      <H2 $top={22}>History</H2>
      {repair.events.toReversed().map((event) => (
        <KeyValue key={event.id}>
          <span>
            {event.says}
            {event.amount && ` · ${format.money(event.amount)}`} <Faint>{event.person}</Faint>
          </span>
          <Faint $oneLine>
            <When at={event.at} />
          </Faint>
        </KeyValue>
      ))}
    </Margin>
  );
}
