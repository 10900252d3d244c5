import type { BuildDetail } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import { Link } from 'react-router';
import { useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { BoughtForIt } from '../buying/index.ts';
import { PegsOf } from '../coverage/index.ts';
import { JobTagField } from '../jobs/index.ts';
import { TasksOfBuild } from '../tasks/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { type Format, useFormat } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import { KeyValue, Margin, Sheet, SheetAndMargin, SheetHead } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { H2, Para } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Muted, Push, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { When } from '../ui/When.tsx';
import { AddPart } from './adding.ts';
import { BuildLines } from './BuildLines.tsx';
import { CancelBuild } from './CancelBuild.tsx';
import { ForOrders } from './ForOrders.tsx';
import { MoreAllowed } from './MoreAllowed.tsx';
import { leftOf } from './reckonUse.ts';
import { StartPanel } from './StartPanel.tsx';
import { StateChip } from './StateChip.tsx';

const PlanDetails = later(() => import('./PlanDetails.tsx'), 'PlanDetails');

/** One build: where it stands, its lines, and the next step. */
export function BuildSheet({ build }: { build: BuildDetail }) {
  const format = useFormat();
  const notify = useNotify();
  const mayWork = useCan('build');
  const adding = useTypedScreen(`add-part.${build.id}`);
  const [isAdding, setAdding] = useTyped(adding, 'open', false);
  const cancel = useCommand('cancelBuild', (after) =>
    notify({ text: `${after.number} is ${after.state}; its parts are free again.` }),
  );
  const isOpen = build.state === 'planned' || build.state === 'on-bench';
  const left = formatDecimal(leftOf(build));
  return (
    <SheetAndMargin>
      <Sheet>
        <SheetHead>
          <Tile code={build.code} size={52} />
          <div>
            <h1>
              {format.quantity(build.quantity, build.unit, build.decimals)} × {build.name}
            </h1>
            <Lead>
              {build.number} · <StateChip build={build} /> ·{' '}
              {build.due ? (
                <>due {build.late ? <Late>{format.day(build.due)}</Late> : <b>{format.day(build.due)}</b>}</>
              ) : (
                'no due date'
              )}
              {build.orders.length > 0 && ` · for ${[...new Set(build.orders.map(({ order }) => order))].join(', ')}`}
            </Lead>
          </div>
        </SheetHead>
        <Para $bottom={12}>{conclusion(build, left, format)}</Para>
        {build.state === 'planned' && <StartPanel build={build} />}
        {build.state === 'on-bench' && (
          <Row $bottom={12}>
            <LinkButton look={build.pickedLines < build.pickLines ? 'go' : 'plain'} to={`/pick/${build.id}`}>
              Pick its parts
            </LinkButton>
            <LinkButton look={build.pickedLines < build.pickLines ? 'plain' : 'go'} to={`/build/${build.id}/finish`}>
              Finish…
            </LinkButton>
          </Row>
        )}
        <ProblemBox error={cancel.error} />
        <BuildLines build={build} />
        {isOpen &&
          mayWork &&
          (isAdding ? (
            <AddPart build={build} screen={adding} onDone={() => setAdding(false)} />
          ) : (
            <Button look="ghost" onPress={() => setAdding(true)}>
              Add a part
            </Button>
          ))}
        {build.tasks.length > 0 || isOpen ? <TasksOfBuild build={build} isOpen={isOpen} /> : null}
        <Row $top={16} $wrap>
          <LinkButton look="ghost" to={`/print/bench/${build.id}`}>
            Print bench sheet
          </LinkButton>
          <LinkButton look="ghost" to={`/print/pick/${build.id}`}>
            Print pick list
          </LinkButton>
          {build.definition && (
            <LinkButton look="ghost" to={`/define/${build.definition.id}?rev=${build.definition.revision}`}>
              Bill of materials, rev {build.definition.revision}
            </LinkButton>
          )}
          <Push />
          {isOpen && (
            <CancelBuild
              build={build}
              left={left}
              busy={cancel.isPending}
              onDo={() => cancel.mutate({ params: { id: build.id }, body: { version: build.version } })}
            />
          )}
        </Row>
        {isOpen && <PegsOf kind="build" id={build.id} />}
      </Sheet>
      <Margin aria-label="Build details">
        <h2>{build.state === 'planned' ? 'Plan' : 'Details'}</h2>
        <PlanDetails key={build.id} build={build} />
        {isOpen && build.pickLines > 0 && <MoreAllowed build={build} />}
        <JobTagField kind="build" id={build.id} jobTag={build.jobTag} />
        <ForOrders build={build} />
        <H2 $top={22}>Documents</H2>
        {build.documents.length === 0 && <Muted>Nothing yet.</Muted>}
        {build.documents.map((document) => (
          <KeyValue key={document.id}>
            <Link to={`/stock/documents/${document.id}`}>
              {document.number} · {document.kind}
            </Link>
            <Faint>
              <When at={document.at} />
            </Faint>
          </KeyValue>
        ))}
        <BoughtForIt purchases={build.purchases} />
        {build.related.length > 0 && (
          <>
            <H2 $top={22}>Split off</H2>
            {build.related.map((other) => (
              <KeyValue key={other.id}>
                <Link to={`/build/${other.id}`}>{other.number}</Link>
              </KeyValue>
            ))}
          </>
        )}
        {build.overrideReason && (
          <Para $top={16}>
            <Muted>Started short: “{build.overrideReason}”</Muted>
          </Para>
        )}
      </Margin>
    </SheetAndMargin>
  );
}

function conclusion(build: BuildDetail, left: string, format: Format): string {
  const open = build.pickLines - build.pickedLines;
  if (build.state === 'finished')
    return `Finished: ${format.number(build.finished)} of ${format.number(build.quantity)} made${Number(build.rejected) > 0 ? `, ${format.number(build.rejected)} rejected` : ''}.`;
  if (build.state === 'cancelled') return 'Cancelled. Its parts are free again.';
  if (build.state === 'planned') {
    return build.waiting.length === 0
      ? 'All parts are free. Ready to start.'
      : `Waiting for ${build.waiting.map((part) => `${format.quantity(part.short, part.unit, 3)} × ${part.name}`).join(', ')}.`;
  }
  if (build.held.length > 0) {
    const what = build.held.map((part) => `${format.quantity(part.quantity, part.unit, 3)} × ${part.name}`);
    return `${what.join(', ')} on the bench is on hold. Release it, or take it back and pick other stock.`;
  }
  if (open > 0) return `${open} of ${build.pickLines} lines to pick; ${format.number(left)} to finish.`;
  return `All parts to be picked are on the bench; ${format.number(left)} to finish.`;
}
