import type { BuildDetail } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { finishCost, plannedPortion, plannedUse, type UsedLine } from '@yosegi/core/builds';
import {
  formatDecimal,
  fromZero,
  type Money,
  type Percent,
  parseDecimal,
  parseQuantity,
  type Quantity,
  readExact,
} from '@yosegi/core/number';
import { writeSerials } from '@yosegi/core/tracking';
import { useMemo, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { isAmong, problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { InFields } from '../lines/InFields.tsx';
import { Shortages } from '../lines/Shortages.tsx';
import { NOTHING_TYPED, namedInOf, namedOf, type TypedTrack } from '../lines/typed.ts';
import { useCan } from '../shell/person.ts';
import { useShortcut } from '../shell/useShortcut.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Choice, Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane, Ask, AskAnswer, BigNumber, Foot } from '../ui/layout.ts';
import { plainTyped, readTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.tsx';
import { OverrideForm } from '../ui/OverrideForm.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Tile } from '../ui/Tile.tsx';
import { Lead, Muted, Push } from '../ui/text.ts';
import { UseGrid } from './UseGrid.tsx';

/** Lot or serials of what was made, in a narrow column. */
const Made = styled.div`> div { padding-left: 0; > * { max-width: 100%; } }`;
const Check = styled.label`display: flex; gap: 8px; align-items: center; margin-top: 12px;`;

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
  const mayOverride = useCan('override');
  const stores = useQuestion('stores', {});
  const left = formatDecimal(readExact(build.quantity) - readExact(build.finished));
  const [good, setGood] = useState(left);
  const [binId, setBinId] = useState(String(build.outputBinId));
  const [closing, setClosing] = useState(false);
  const [typed, setTyped] = useState<ReadonlyMap<number, string>>(new Map());
  const [track, setTrack] = useState<TypedTrack>(() => givenBack(build));
  const [tracks, setTracks] = useState<ReadonlyMap<number, TypedTrack>>(new Map());
  const [overriding, setOverriding] = useState(false);
  const form = useRef<HTMLDivElement>(null);
  const reckoning = useMemo(() => reckonUse(build, good, typed), [build, good, typed]);
  const finish = useCommand('finish', ({ id: documentId, number, unitCost }) => {
    notify({
      text: `${number}: ${format.number(good)} × ${build.name} at ${format.unitCost(unitCost)} each are in stock.`,
      documentId,
    });
    void go(`/build/${build.id}`);
  });
  const made = { id: build.itemId, name: build.name, tracking: build.tracking };
  const usedIds = [...new Set([...typed.keys(), ...tracks.keys()])];
  const post = (override?: { reason: string }) => {
    if (reckoning.faults.size > 0 || finish.isPending) return;
    finish.mutate({
      params: { id: build.id },
      body: {
        version: build.version,
        good: good.trim(),
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
  const portion = parseOr(good) < parseDecimal(left);
  const short = problemOf(finish.error)?.code === 'stock-short';
  const money = (amount: number) => format.money(formatDecimal(amount));
  const each = (amount: number) => format.unitCost(formatDecimal(amount));
  return (
    <AskAnswer ref={form}>
      <Ask aria-label="What was made">
        <Tile code={build.code} size={52} />
        <h2 style={{ marginTop: 10 }}>{build.name}</h2>
        <Lead>
          {build.number}, {left} left to finish
        </Lead>
        <div style={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 12, marginTop: 16 }}>
          <Field
            label="Good units"
            numeric
            autoFocus
            value={good}
            onChange={setGood}
            suffix={build.unit}
            error={reckoning.faults.get('good') ?? problemAt(finish.error, 'good')}
          />
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
        </div>
        {portion && (
          <Check>
            <input type="checkbox" checked={closing} onChange={(event) => setClosing(event.target.checked)} />
            That's all: close the build here
          </Check>
        )}
        <BigNumber style={{ marginTop: 26 }}>{each(cost.unitCost)}</BigNumber>
        <Muted>
          each, {each(cost.plannedUnitCost)} as planned
          <br />
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
            <Lead>Filled in from the plan for {good || '0'}. Change what was different; cost follows.</Lead>
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
        {finish.error && !isAmong(problemOf(finish.error)?.field, ['good', 'lot', 'bestBefore', 'serials']) && (
          <div style={{ padding: '0 24px 12px', display: 'grid', gap: 10 }}>
            <ProblemBox
              error={finish.error}
              ways={
                short && (
                  <>
                    <LinkButton to={`/pick/${build.id}`}>Pick more parts</LinkButton>
                    <LinkButton to="/stock/receive">Receive goods</LinkButton>
                    {mayOverride && !overriding && (
                      <Button onPress={() => setOverriding(true)}>Take it below zero…</Button>
                    )}
                  </>
                )
              }
            >
              {short && <Shortages problem={problemOf(finish.error)} />}
            </ProblemBox>
            {overriding && (
              <OverrideForm
                action="Finish below zero"
                busy={finish.isPending}
                onOverride={(reason) => post({ reason })}
              />
            )}
          </div>
        )}
        <Foot>
          <Muted>
            Parts, labour and charges <b style={{ color: 'var(--ink)' }}>{money(cost.actual)}</b>
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

/** Cost and differences of what is typed; what was not typed is as planned for the good quantity. */
function reckonUse(build: BuildDetail, goodText: string, typed: ReadonlyMap<number, string>) {
  const faults = new Map<string, string>();
  const read = <T extends number>(field: string, parse: () => T): T => {
    try {
      return fromZero(parse());
    } catch (error) {
      faults.set(field, wordsOf(error) ?? 'This cannot be read.');
      return 0 as T;
    }
  };
  const good = read('good', () => parseQuantity(goodText, build.decimals));
  const left = readExact(build.quantity) - readExact(build.finished);
  if (good === 0 && !faults.has('good')) faults.set('good', 'Type how many are good.');
  if (good > left) faults.set('good', `Only ${formatDecimal(left)} left. Plan another build for more.`);
  const progress = {
    quantity: readExact(build.quantity) as Quantity,
    finished: readExact(build.finished) as Quantity,
    outputQuantity: readExact(build.outputQuantity) as Quantity,
  };
  const actuals = new Map<number, Quantity>();
  const lines = build.lines.flatMap((line): UsedLine[] => {
    const { id: lineId, basis } = line;
    const said = typed.get(lineId);
    if (line.kind === 'part' && line.item) {
      const { item } = line;
      const need = {
        basis,
        quantity: readExact(line.amount) as Quantity,
        waste: readExact(line.waste) as Percent,
        decimals: item.decimals,
      };
      const actual =
        said === undefined ? plannedUse(need, progress, good) : read(`line${lineId}`, () => readTyped(said, item));
      actuals.set(lineId, actual);
      return [
        {
          ...need,
          kind: 'part',
          lineId,
          itemId: line.item.id,
          actual,
          unitCost: readExact(line.item.averageCost) as Money,
        },
      ];
    }
    if (line.kind === 'labour') {
      const minutes = readExact(line.amount) as Quantity;
      const planned = plannedPortion(basis, minutes, progress, good);
      const actual = said === undefined ? planned : read(`line${lineId}`, () => parseQuantity(said || '0', 2));
      actuals.set(lineId, actual);
      return [
        { kind: 'labour', lineId, basis, minutes, ratePerHour: readExact(line.ratePerHour ?? '0') as Money, actual },
      ];
    }
    return line.kind === 'charge' ? [{ kind: 'charge', lineId, basis, amount: readExact(line.amount) as Money }] : [];
  });
  try {
    return { faults, actuals, cost: finishCost(lines, progress, good) };
  } catch (error) {
    faults.set('good', wordsOf(error) ?? 'What this costs cannot be worked out.');
    return { faults, actuals, cost: finishCost([], progress, good) };
  }
}
