import type { Store } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { formatDecimal, type Quantity, readExact, SCALE } from '@yosegi/core/number';
import { checkPick } from '@yosegi/core/picking';
import { Fragment } from 'react';
import { z } from 'zod';
import { problemOf } from '../api/client.ts';
import { OutFields } from '../lines/OutFields.tsx';
import { Refusal } from '../lines/Refusal.tsx';
import { stepLines } from '../lines/steps.ts';
import { namedOf, TypedTrack } from '../lines/typed.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane, Cell, Foot, Grid } from '../ui/layout.ts';
import { readTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.ts';
import { Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Muted, Push, Row } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { type PickJob, usePick } from './job.ts';
import { SomeKits } from './SomeKits.tsx';
import { type Step, stepsOf, suggestedTrack, suggestion } from './steps.ts';

const Typed = z.object({ binId: z.number(), quantity: z.string(), track: TypedTrack });
type Typed = z.infer<typeof Typed>;

/** What is open of a build or an order in walking order: quantities as suggested or as typed, partly now and the rest later. */
export function PickTable({ job, stores }: { job: PickJob; stores: readonly Store[] }) {
  const format = useFormat();
  const notify = useNotify();
  const screen = useTypedScreen(`pick.${job.kind}.${job.id}`);
  const [typed, setTyped] = useTyped<ReadonlyMap<number, Typed>>(screen, 'typed', new Map(), z.map(z.number(), Typed));
  const steps = stepsOf(job.lines, stores);
  const pick = usePick(job, ({ id: documentId, number, openLines: open }) => {
    setTyped(new Map());
    notify({
      text: `${number}: it is ${job.place}. ${open === 0 ? 'Everything is picked.' : `${count(open, 'line')} still open.`}`,
      documentId,
    });
  });
  const rows = steps.map((step) => readRow(step, typed.get(step.line.id)));
  const going = rows.filter((row) => row.quantity > 0 && row.binId !== 0);
  const faulty = rows.some((row) => row.error !== undefined);
  const post = (override?: { reason: string }) => {
    if (faulty || going.length === 0 || pick.isPending) return;
    const lines = going.map((row) => ({
      lineId: row.step.line.id,
      binId: row.binId,
      quantity: formatDecimal(row.quantity),
      ...namedOf(row.step.item, row.track),
    }));
    pick.post(lines, override);
  };
  useShortcut('Enter', () => post(), { ctrl: true });
  const set = (step: Step, part: Partial<Typed>) => {
    const before = typed.get(step.line.id) ?? startOf(step);
    setTyped(new Map(typed).set(step.line.id, { ...before, ...part }));
  };
  const fillIn = (needed: ReadonlyMap<number, Quantity>) =>
    setTyped(new Map(steps.map((step) => [step.line.id, partlyOf(step, needed.get(step.line.id))])));
  const problem = problemOf(pick.error);
  const short = problem?.code === 'stock-short';
  const [, refusedIndex, refusedName] = problem?.field?.split('.') ?? [];
  const refusedLine = refusedIndex ? going[Number(refusedIndex)]?.step.line.id : undefined;
  const shelfOf = (step: Step): [string, string][] => {
    const stocked = step.bins.map((bin): [string, string] => [
      String(bin.binId),
      `${bin.bin} · ${bin.store} · ${format.quantity(bin.quantity, step.item.unit, step.item.decimals)}`,
    ]);
    return stocked.length > 0 ? stocked : [['0', 'in no bin']];
  };
  return (
    <AnswerPane>
      <AnswerBody>
        <Row $wrap>
          <Tile code={job.tile} size={52} />
          <div>
            <h1>
              {steps.length === 0
                ? `Everything for ${job.number} is picked.`
                : `${count(steps.length, 'line')} to pick for ${job.number}.`}
            </h1>
            <Lead>{job.what}. Bins in picking order; pick less and the rest stays open.</Lead>
          </div>
          <Push />
          {job.some && steps.length > 0 && <SomeKits some={job.some} screen={screen} onFill={fillIn} />}
          <LinkButton to={job.kind === 'build' ? `/print/pick/${job.id}` : `/print/order-pick/${job.id}`}>
            Print pick list
          </LinkButton>
        </Row>
        {steps.length > 0 && (
          <Grid>
            <thead>
              <tr>
                <Th $width={300}>Bin</Th>
                <th>Part</th>
                <th className="num">Still open</th>
                <Th className="num" $width={150}>
                  Take now
                </Th>
                <th className="num">Stays open</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ step, binId, text, quantity, error, track }) => (
                <Fragment key={step.line.id}>
                  <tr>
                    <td>
                      <Choice
                        label={`Bin for ${step.item.name}`}
                        hideLabel
                        value={String(binId)}
                        options={shelfOf(step)}
                        onChange={(next) =>
                          set(step, {
                            ...chosenBin(step, Number(next)),
                          })
                        }
                      />
                    </td>
                    <td>
                      <Cell>
                        <Tile code={step.item.code} size={32} />
                        <span>
                          <b>{step.item.name}</b>
                          <br />
                          <Faint>{step.item.code}</Faint>
                        </span>
                      </Cell>
                    </td>
                    <td className="num">
                      <b>{format.quantity(step.line.open, step.item.unit, step.item.decimals)}</b>
                    </td>
                    <td className="num">
                      <Field
                        label={`Take now of ${step.item.name}`}
                        hideLabel
                        numeric
                        value={text}
                        suffix={step.item.unit === 'each' ? '' : step.item.unit}
                        onChange={(next) => set(step, { quantity: next })}
                        onKeyDown={(event) => stepLines(event, true)}
                        error={
                          error ??
                          (refusedLine === step.line.id && refusedName === 'quantity' ? problem?.detail : undefined)
                        }
                      />
                    </td>
                    <td className="num">
                      <Muted>
                        {format.quantity(
                          formatDecimal(Math.max(0, readExact(step.line.open) - quantity)),
                          step.item.unit,
                          step.item.decimals,
                        )}
                      </Muted>
                    </td>
                  </tr>
                  {step.item.tracking !== 'none' && step.bins.length > 0 && (
                    <tr>
                      <td />
                      <td colSpan={4}>
                        <OutFields
                          item={step.item}
                          pieces={step.bins.find((bin) => bin.binId === binId)?.pieces ?? []}
                          typed={track}
                          onChange={(next) => set(step, { track: next })}
                          quantity={quantity / SCALE}
                          setCount={(n) => set(step, { quantity: String(n) })}
                          errorAt={(name) =>
                            refusedLine === step.line.id && refusedName === name ? problem?.detail : undefined
                          }
                        />
                      </td>
                    </tr>
                  )}
                </Fragment>
              ))}
            </tbody>
          </Grid>
        )}
        <Refusal
          error={pick.error}
          shownAt={refusedLine === undefined ? [] : [problem?.field ?? '']}
          ways={
            short && (
              <>
                <Button onPress={() => setTyped(new Map())}>Take what is there</Button>
                <LinkButton to="/stock/receive">Receive goods</LinkButton>
              </>
            )
          }
          overable={['stock-short', 'lot-order', 'is-held']}
          {...(pick.mayGoBelow
            ? {
                over: {
                  action: short ? 'Pick below zero' : 'Take it anyway',
                  busy: pick.isPending,
                  post: (reason: string) => post({ reason }),
                },
              }
            : {})}
        />
      </AnswerBody>
      <Foot>
        <Muted>
          {job.picked} of {count(job.of, 'line')} picked before
        </Muted>
        <Push />
        <LinkButton look={steps.length === 0 ? 'go' : 'ghost'} to={job.next.to}>
          {job.next.says}…
        </LinkButton>
        {steps.length > 0 && (
          <Button look="go" isDisabled={faulty || going.length === 0} busy={pick.isPending} onPress={() => post()}>
            {job.kind === 'build'
              ? `Bring ${count(going.length, 'line')} to the bench`
              : `Pack ${count(going.length, 'line')}`}
          </Button>
        )}
      </Foot>
    </AnswerPane>
  );
}

/** As much as the bin holds of what is open, and of serials the first ones in it. */
function chosenBin(step: Step, binId: number): Typed {
  const bin = step.bins.find((one) => one.binId === binId);
  const quantity = suggestion(step.line.open, bin);
  return { binId, quantity, track: suggestedTrack(step.item, bin, quantity) };
}

/** What is suggested: the first bin, and of serials the first ones in it. */
function startOf(step: Step): Typed {
  const [bin] = step.bins;
  return { binId: bin?.binId ?? 0, quantity: step.suggested, track: suggestedTrack(step.item, bin, step.suggested) };
}

/** So much of what its first bin suggests as is needed now. */
function partlyOf(step: Step, needed: Quantity = 0 as Quantity): Typed {
  const [bin] = step.bins;
  const quantity = formatDecimal(Math.min(needed, readExact(step.suggested)));
  return { binId: bin?.binId ?? 0, quantity, track: suggestedTrack(step.item, bin, quantity) };
}

function readRow(step: Step, typed: Typed | undefined) {
  const { quantity: text, binId, track } = typed ?? startOf(step);
  const base = { step, binId, text, track };
  try {
    const quantity = readTyped(text, step.item);
    if (quantity !== 0) checkPick(readExact(step.line.open) as Quantity, quantity);
    return { ...base, quantity, error: undefined };
  } catch (error) {
    return { ...base, quantity: 0 as Quantity, error: entryFault(error) };
  }
}
