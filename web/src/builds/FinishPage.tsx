import type { BuildDetail } from '@yosegi/contract';
import { formatDecimal, parseDecimal } from '@yosegi/core/number';
import { writeSerials } from '@yosegi/core/tracking';
import { useMemo, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { InFields } from '../lines/InFields.tsx';
import { ReasonChoice } from '../lines/ReasonChoice.tsx';
import { Refusal } from '../lines/Refusal.tsx';
import { NOTHING_TYPED, namedInOf, namedOf, type TypedTrack } from '../lines/typed.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane, Ask, AskAnswer, BigNumber, Foot } from '../ui/layout.ts';
import { plainTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { H2, Part, Stack } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Late, Lead, Muted, Push } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { leftOf, reckonUse } from './reckonUse.ts';
import { UseGrid } from './UseGrid.tsx';

/** Lot or serials of what was made, in a narrow column. */
const Made = styled.div`> div { padding-left: 0; > * { max-width: 100%; } }`;

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
            title={`${data.number} is not on the bench`}
            action={<LinkButton to={`/build/${data.id}`}>Open {data.number}</LinkButton>}
          >
            Only a build on the bench can be finished; this one is {data.state}.
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
  const stores = useQuestion('stores', {});
  const left = formatDecimal(leftOf(build));
  const screen = useTypedScreen(`finish.${build.id}`);
  const [good, setGood] = useTyped(screen, 'good', left);
  const [binId, setBinId] = useTyped(screen, 'binId', String(build.outputBinId));
  const [closing, setClosing] = useState(false);
  const [rejected, setRejected] = useTyped(screen, 'rejected', '');
  const [reasonId, setReasonId] = useTyped(screen, 'reasonId', '');
  const [rejectCost, setRejectCost] = useTyped<'carried' | 'written-off'>(screen, 'rejectCost', 'carried');
  const isRejecting = parseOr(rejected) > 0;
  const [typed, setTyped] = useTyped<ReadonlyMap<number, string>>(screen, 'typed', new Map());
  const [track, setTrack] = useTyped<TypedTrack>(screen, 'track', () => givenBack(build));
  const [tracks, setTracks] = useTyped<ReadonlyMap<number, TypedTrack>>(screen, 'tracks', new Map());
  const form = useRef<HTMLDivElement>(null);
  const reckoning = useMemo(
    () =>
      reckonUse(build, good, typed, {
        isClosing: closing,
        rejectedText: rejected,
        isWrittenOff: rejectCost === 'written-off',
      }),
    [build, good, typed, closing, rejected, rejectCost],
  );
  const finish = useCommand(
    'finish',
    ({ id: documentId, number, unitCost }) => {
      notify({
        text: `${number}: ${format.number(good)} × ${build.name} at ${format.unitCost(unitCost)} each are in stock.`,
        documentId,
      });
      void go(`/build/${build.id}`);
    },
    screen.forget,
  );
  const made = { id: build.itemId, name: build.name, tracking: build.tracking };
  const usedIds = [...new Set([...typed.keys(), ...tracks.keys()])];
  const post = (override?: { reason: string }) => {
    if (reckoning.faults.size > 0 || finish.isPending) return;
    finish.mutate({
      params: { id: build.id },
      body: {
        version: build.version,
        good: good.trim() || '0',
        ...(isRejecting ? { rejected: rejected.trim(), rejectReasonId: Number(reasonId) || null, rejectCost } : {}),
        outputBinId: Number(binId),
        ...namedInOf(made, track),
        lines: usedIds.map((lineId) => {
          const item = build.lines.find((line) => line.id === lineId)?.item ?? undefined;
          const said = typed.get(lineId);
          const actual =
            said === undefined ? formatDecimal(reckoning.actuals.get(lineId) ?? 0) : plainTyped(said, item);
          return { lineId, actual, ...(item ? namedOf(item, tracks.get(lineId) ?? NOTHING_TYPED) : {}) };
        }),
        close: closing,
        ...(override ? { override } : {}),
      },
    });
  };
  useShortcut('Enter', () => post(), { ctrl: true });
  const { cost } = reckoning;
  const difference = cost.actual - cost.planned;
  const portion = parseOr(good) + parseOr(rejected) < parseDecimal(left);
  const short = problemOf(finish.error)?.code === 'stock-short';
  const money = (amount: number) => format.money(formatDecimal(amount));
  const each = (amount: number) => format.unitCost(formatDecimal(amount));
  return (
    <AskAnswer ref={form}>
      <Ask aria-label="What was made">
        <Tile code={build.code} size={52} />
        <H2 $top={10}>{build.name}</H2>
        <Lead>
          {build.number}, {left} left to finish
        </Lead>
        <Stack $gap={12} $top={16}>
          <Field
            label="Good units"
            numeric
            autoFocus
            value={good}
            onChange={setGood}
            suffix={build.unit}
            error={reckoning.faults.get('good') ?? problemAt(finish.error, 'good')}
          />
          <Field
            label="Rejected"
            numeric
            value={rejected}
            onChange={setRejected}
            suffix={build.unit}
            error={reckoning.faults.get('rejected') ?? problemAt(finish.error, 'rejected')}
          />
          {isRejecting && (
            <>
              <ReasonChoice
                usedFor="reject"
                label="Why are they no good?"
                hideLabel={false}
                value={reasonId}
                onChange={setReasonId}
              />
              {problemAt(finish.error, 'rejectReasonId') && <Late>{problemAt(finish.error, 'rejectReasonId')}</Late>}
              <Choice
                label="What they cost"
                value={rejectCost}
                onChange={(next) => setRejectCost(next as 'carried' | 'written-off')}
                options={[
                  ['carried', 'is carried by the good ones'],
                  ['written-off', 'is written off as planned'],
                ]}
                error={reckoning.faults.get('rejectCost') ?? problemAt(finish.error, 'rejectCost')}
              />
            </>
          )}
          <Choice label="Into bin" value={binId} onChange={setBinId} options={shelfOptions(stores.data ?? [])} />
          {build.tracking !== 'none' && (
            <Made>
              <InFields
                item={made}
                typed={track}
                onChange={setTrack}
                quantity={Number(good) || 0}
                errorAt={(name) => problemAt(finish.error, name)}
                mayReturn
              />
            </Made>
          )}
        </Stack>
        {portion && (
          <Tick isOn={closing} onChange={setClosing}>
            That's all: close the build here
          </Tick>
        )}
        <BigNumber $top={26}>{each(reckoning.unitCost)}</BigNumber>
        <Muted>
          each, {each(cost.plannedUnitCost)} as planned
          <br />
          {reckoning.writtenOff > 0 && (
            <>
              {money(reckoning.writtenOff)} written off
              <br />
            </>
          )}
          {difference === 0 ? (
            <Chip $tone="ok">as planned</Chip>
          ) : (
            <Chip $tone={difference > 0 ? 'short' : 'ok'}>
              {difference > 0 ? '+' : '−'}
              {money(Math.abs(difference))} {difference > 0 ? 'more' : 'less'} than planned
            </Chip>
          )}
        </Muted>
      </Ask>
      <AnswerPane>
        <AnswerBody>
          <div>
            <h1>What was really used?</h1>
            <Lead>
              Filled in from the plan for {formatDecimal(parseOr(good) + parseOr(rejected))}. Change what was different;
              cost follows.
            </Lead>
          </div>
          <UseGrid
            build={build}
            cost={cost}
            actuals={reckoning.actuals}
            typed={typed}
            faults={reckoning.faults}
            setActual={(lineId, text) => setTyped(new Map(typed).set(lineId, text))}
            refused={problemOf(finish.error)}
            typedIds={usedIds}
            tracks={tracks}
            setTrack={(lineId, next) => setTracks(new Map(tracks).set(lineId, next))}
          />
        </AnswerBody>
        <Part $bottom={12}>
          <Refusal
            error={finish.error}
            shownAt={['good', 'rejected', 'rejectReasonId', 'rejectCost', 'lot', 'bestBefore', 'serials']}
            ways={
              short && (
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
            Parts, labour and charges <b>{money(cost.actual)}</b>
          </Muted>
          <Push />
          <LinkButton look="ghost" to={`/build/${build.id}`}>
            Back
          </LinkButton>
          <Button look="go" isDisabled={reckoning.faults.size > 0} busy={finish.isPending} onPress={() => post()}>
            Finish {good} {portion && !closing ? `of ${left}` : ''}
          </Button>
        </Foot>
      </AnswerPane>
    </AskAnswer>
  );
}

/** A rework gives back the very units that stand on its bench. */
function givenBack(build: BuildDetail): TypedTrack {
  const itself = build.lines.filter((line) => line.item?.id === build.itemId).flatMap((line) => line.pieces);
  return { ...NOTHING_TYPED, serials: writeSerials(itself.flatMap((piece) => piece.serial ?? [])) };
}

const parseOr = (text: string): number => {
  try {
    return parseDecimal(text);
  } catch {
    return 0;
  }
};
