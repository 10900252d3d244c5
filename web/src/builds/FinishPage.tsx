import type { BuildDetail } from '@yosegi/contract';
import { formatDecimal, parseDecimal } from '@yosegi/core/number';
import { writeSerials } from '@yosegi/core/tracking';
import { useMemo, useRef } from 'react';
import { useNavigate, useParams } from 'react-router';
import { z } from 'zod';
import { problemOf, useCommand, useQuestion } from '../api/client.ts';
import { Refusal } from '../lines/Refusal.tsx';
import { NOTHING_TYPED, namedInOf } from '../lines/typed.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane, AskAnswer, Foot } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Part } from '../ui/space.ts';
import { Lead, Muted, Push } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { AddPart } from './adding.ts';
import { CameOut, newOut, outLines, TypedOut } from './CameOut.tsx';
import { pageOf } from './held.ts';
import { MADE_FIELDS, Made, MadeAsk } from './MadeAsk.tsx';
import { leftOf, reckonUse } from './reckonUse.ts';
import { NOTHING_USED, TypedUse, usedLines } from './typedUse.ts';
import { UseGrid } from './UseGrid.tsx';
import { Usual } from './Usual.tsx';

/** Finishes some or all of a build with what was really used. */
export function FinishPage() {
  const { id } = useParams();
  const build = useQuestion('build', { params: { id: Number(id) } });
  return (
    <Answer of={build}>
      {(data) =>
        data.state === 'on-bench' ? (
          <FinishForm key={data.id} build={data} />
        ) : (
          <EmptyState
            isPage
            title={`${data.number} is not on the bench`}
            action={<LinkButton to={pageOf(data)}>Open {data.number}</LinkButton>}
          >
            Only builds on the bench can be finished. This one is {data.state}.
          </EmptyState>
        )
      }
    </Answer>
  );
}

function FinishForm({ build }: { build: BuildDetail }) {
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const left = formatDecimal(leftOf(build));
  const screen = useTypedScreen(`finish.${build.id}`);
  const [made, setMade] = useTyped(screen, 'made', () => madeOf(build, left), Made);
  const [used, setUsed] = useTyped(screen, 'used', NOTHING_USED, TypedUse);
  const [out, setOut] = useTyped(screen, 'out', () => outOf(build), z.array(TypedOut));
  const adding = useTypedScreen(`add-part.${build.id}`);
  const [isAdding, setAdding] = useTyped(adding, 'open', false);
  const form = useRef<HTMLDivElement>(null);
  const { good, rejected, rejectCost, closes } = made;
  const lastUses = useQuestion('lastUses', { params: { id: build.id } }).data;
  const past = useMemo(() => new Map((lastUses ?? []).map((use) => [use.lineId, use])), [lastUses]);
  const reckoning = useMemo(
    () =>
      reckonUse(build, good, used.actuals, {
        isClosing: closes,
        rejectedText: rejected,
        isWrittenOff: rejectCost === 'written-off',
        out: build.isRework ? out : [],
        tracks: used.tracks,
      }),
    [build, good, used.actuals, used.tracks, closes, rejected, rejectCost, out],
  );
  /** A rework gives back the very units that it takes in: said of one, it is said of the other. */
  const use = (next: TypedUse) => {
    setUsed(next);
    const own = build.isRework ? build.lines.find(({ item }) => item?.id === build.itemId) : undefined;
    const serials = own && next.tracks.get(own.id)?.serials;
    if (serials !== undefined && serials !== used.tracks.get(own?.id ?? 0)?.serials)
      setMade({ ...made, track: { ...made.track, serials } });
  };
  const finish = useCommand(
    'finish',
    ({ id: documentId, number, unitCost }) => {
      notify({
        text: build.repair
          ? `${number}: the ${build.name} of ${build.repair.customer} is ready.`
          : `${number}: ${format.number(good)} × ${build.name} at ${format.unitCost(unitCost)} each are in stock.`,
        documentId,
      });
      void go(pageOf(build));
    },
    screen.forget,
  );
  const refused = problemOf(finish.error);
  const post = (override?: { reason: string }) => {
    if (reckoning.faults.size > 0 || finish.isPending) return;
    const isRejecting = parseOr(rejected) > 0;
    finish.mutate({
      params: { id: build.id },
      body: {
        version: build.version,
        good: good.trim() || '0',
        ...(isRejecting
          ? { rejected: rejected.trim(), rejectReasonId: Number(made.reasonId) || null, rejectCost }
          : {}),
        outputBinId: Number(made.binId),
        ...(build.repair
          ? {}
          : namedInOf({ id: build.itemId, name: build.name, tracking: build.tracking }, made.track)),
        lines: usedLines(build, used, reckoning.actuals),
        madeOn: made.madeOn || null,
        ...(build.isRework ? { conditionBefore: made.before, conditionAfter: made.after, out: outLines(out) } : {}),
        close: closes,
        ...(override ? { override } : {}),
      },
    });
  };
  useShortcut('Enter', () => post(), { ctrl: true });
  const portion = parseOr(good) + parseOr(rejected) < parseDecimal(left);
  const outFields = out.flatMap((_, index) =>
    ['itemId', 'quantity', 'share', 'binId', 'lot', 'bestBefore', 'serials'].map((name) => `out.${index}.${name}`),
  );
  return (
    <AskAnswer ref={form}>
      <MadeAsk
        build={build}
        made={made}
        onChange={setMade}
        reckoning={reckoning}
        error={finish.error}
        isPortion={portion}
      />
      <AnswerPane>
        <AnswerBody>
          <div>
            <h1>What was actually used?</h1>
            <Lead>
              {build.repair
                ? 'Filled in from its parts and tasks. Change what was different; cost follows.'
                : `Filled in from the plan for ${formatDecimal(parseOr(good) + parseOr(rejected))}. Change what was different; cost follows.`}
            </Lead>
            <Usual build={build} cost={reckoning.cost} past={past} typed={used} onChange={setUsed} />
          </div>
          <UseGrid
            build={build}
            cost={reckoning.cost}
            actuals={reckoning.actuals}
            typed={used}
            onChange={use}
            faults={reckoning.faults}
            refused={refused}
            past={past}
          />
          {isAdding ? (
            <AddPart build={build} screen={adding} onDone={() => setAdding(false)} />
          ) : (
            <div>
              <Button look="ghost" onPress={() => setAdding(true)}>
                Add another part used
              </Button>
            </div>
          )}
          {build.isRework && (
            <CameOut
              itemId={build.itemId}
              out={out}
              onChange={setOut}
              refused={refused}
              fault={reckoning.faults.get('out')}
            />
          )}
        </AnswerBody>
        <Part $bottom={12}>
          <Refusal
            error={finish.error}
            shownAt={[...MADE_FIELDS, 'out', ...outFields]}
            ways={
              refused?.code === 'stock-short' && (
                <>
                  <LinkButton to={`/pick/${build.id}`}>Pick more parts</LinkButton>
                  <LinkButton to="/stock/receive">Receive goods</LinkButton>
                </>
              )
            }
            over={{
              action: 'Finish below zero',
              busy: finish.isPending,
              post: (reason) => post({ reason }),
            }}
          />
        </Part>
        <Foot>
          <Muted>
            Parts, labour and charges <b>{format.money(formatDecimal(reckoning.cost.actual))}</b>
          </Muted>
          <Push />
          <LinkButton look="ghost" to={pageOf(build)}>
            Back
          </LinkButton>
          <Button look="go" isDisabled={reckoning.faults.size > 0} busy={finish.isPending} onPress={() => post()}>
            {build.repair ? 'Finish repair' : `Finish ${good} ${portion && !closes ? `of ${left}` : ''}`}
          </Button>
        </Foot>
      </AnswerPane>
    </AskAnswer>
  );
}

/** What is filled in: all that is left, and of a rework the very units that stand on its bench. */
function madeOf(build: BuildDetail, left: string): Made {
  const itself = build.lines.filter((line) => line.item?.id === build.itemId).flatMap((line) => line.pieces);
  return {
    good: left,
    binId: String(build.outputBinId),
    closes: false,
    rejected: '',
    reasonId: '',
    rejectCost: 'carried',
    madeOn: '',
    before: '',
    after: '',
    track: { ...NOTHING_TYPED, serials: writeSerials(itself.flatMap((piece) => piece.serial ?? [])) },
  };
}

/**
 * What the definition of a rework says that comes out: an old one for each new part that is said to come back, worth
 * keeping where it has a share.
 */
const outOf = (build: BuildDetail): readonly TypedOut[] =>
  build.isRework
    ? build.lines.flatMap(({ item, comesBack, share, open, onBench, used }) => {
        const quantity = parseOr(open) + parseOr(onBench) + parseOr(used);
        return item && comesBack && item.id !== build.itemId && quantity > 0
          ? [newOut({ ...item, homeBinId: null }, formatDecimal(quantity), share ?? '0', share ? 'stock' : 'scrap')]
          : [];
      })
    : [];

const parseOr = (text: string): number => {
  try {
    return parseDecimal(text);
  } catch {
    return 0;
  }
};
