import type { BuildDetail } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import styled from 'styled-components';
import { z } from 'zod';
import { problemAt, useQuestion } from '../api/client.ts';
import { InFields } from '../lines/InFields.tsx';
import { ReasonChoice } from '../lines/ReasonChoice.tsx';
import { TypedTrack } from '../lines/typed.ts';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Ask, BigNumber } from '../ui/layout.ts';
import { shelfOptions } from '../ui/shelves.ts';
import { H2, Stack } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Late, Lead, Muted } from '../ui/text.ts';
import { leftOf, type reckonUse } from './reckonUse.ts';

/** Lot or serials of what was made, in a narrow column. */
const Narrow = styled.div`> div { padding-left: 0; > * { max-width: 100%; } }`;

/** What was made, as a person types it. */
export const Made = z.object({
  good: z.string(),
  binId: z.string(),
  closes: z.boolean(),
  rejected: z.string(),
  reasonId: z.string(),
  rejectCost: z.enum(['carried', 'written-off']),
  madeOn: z.string(),
  /** In what condition a rework took its unit in, and gives it back. */
  before: z.string(),
  after: z.string(),
  track: TypedTrack,
});
export type Made = Readonly<z.infer<typeof Made>>;

/** The fields that say beside themselves what is wrong with them. */
export const MADE_FIELDS = [
  'good',
  'rejected',
  'rejectReasonId',
  'rejectCost',
  'madeOn',
  'conditionBefore',
  'conditionAfter',
  'lot',
  'bestBefore',
  'serials',
];

interface Props {
  readonly build: BuildDetail;
  readonly made: Made;
  readonly onChange: (made: Made) => void;
  readonly reckoning: ReturnType<typeof reckonUse>;
  readonly error: unknown;
  /** Some of it is left to be finished later. */
  readonly isPortion: boolean;
}

/** What was made: how many are good, where they go, and what each of them costs. */
export function MadeAsk(props: Props) {
  const { build } = props;
  return (
    <Ask aria-label="Output">
      <Tile code={build.code} size={52} />
      <H2 $top={10}>{build.name}</H2>
      <Lead>
        {build.number}
        {build.repair
          ? `, of ${build.repair.customer}: ${build.repair.fault}`
          : `, ${formatDecimal(leftOf(build))} left to finish`}
      </Lead>
      {!build.repair && <Quantities {...props} />}
      <Cost {...props} />
    </Ask>
  );
}

function Quantities({ build, made, onChange, reckoning, error, isPortion }: Props) {
  const stores = useQuestion('stores', {}).data ?? [];
  const set = (part: Partial<Made>) => onChange({ ...made, ...part });
  const { faults } = reckoning;
  const item = { id: build.itemId, name: build.name, tracking: build.tracking };
  return (
    <>
      <Stack $gap={12} $top={16}>
        <Field
          label="Good units"
          numeric
          autoFocus
          value={made.good}
          onChange={(good) => set({ good })}
          suffix={build.unit}
          error={faults.get('good') ?? problemAt(error, 'good')}
        />
        <Field
          label="Rejected"
          numeric
          value={made.rejected}
          onChange={(rejected) => set({ rejected })}
          suffix={build.unit}
          error={faults.get('rejected') ?? problemAt(error, 'rejected')}
        />
        {Number(made.rejected) > 0 && (
          <>
            <ReasonChoice
              usedFor="reject"
              label="Reason for rejecting"
              hideLabel={false}
              value={made.reasonId}
              onChange={(reasonId) => set({ reasonId })}
            />
            {problemAt(error, 'rejectReasonId') && <Late>{problemAt(error, 'rejectReasonId')}</Late>}
            <Choice
              label="Cost of rejects"
              value={made.rejectCost}
              onChange={(next) => set({ rejectCost: next as Made['rejectCost'] })}
              options={[
                ['carried', 'spread over the good units'],
                ['written-off', 'is written off as planned'],
              ]}
              error={faults.get('rejectCost') ?? problemAt(error, 'rejectCost')}
            />
          </>
        )}
        <Choice
          label="Into bin"
          value={made.binId}
          onChange={(binId) => set({ binId })}
          options={shelfOptions(stores)}
        />
        {build.tracking !== 'none' && (
          <Narrow>
            <InFields
              item={item}
              typed={made.track}
              onChange={(track) => set({ track })}
              quantity={Number(made.good) || 0}
              errorAt={(name) => problemAt(error, name)}
              mayReturn
              isGivenBack={build.isRework}
            />
          </Narrow>
        )}
        <DayField
          label="Finished on, if not today"
          value={made.madeOn}
          onChange={(madeOn) => set({ madeOn })}
          error={problemAt(error, 'madeOn')}
        />
        {build.isRework && (
          <>
            <Field
              label="Condition before"
              value={made.before}
              onChange={(before) => set({ before })}
              error={problemAt(error, 'conditionBefore')}
            />
            <Field
              label="Condition now"
              value={made.after}
              onChange={(after) => set({ after })}
              error={problemAt(error, 'conditionAfter')}
            />
          </>
        )}
      </Stack>
      {isPortion && (
        <Tick isOn={made.closes} onChange={(closes) => set({ closes })}>
          Close the build here
        </Tick>
      )}
    </>
  );
}

/** What one costs, or what the repair does, beside the plan. */
function Cost({ build, reckoning }: Props) {
  const format = useFormat();
  const { cost, unitCost, writtenOff } = reckoning;
  const difference = cost.actual - cost.planned;
  const money = (amount: number) => format.money(formatDecimal(amount));
  const each = (amount: number) => format.unitCost(formatDecimal(amount));
  return (
    <>
      <BigNumber $top={26}>{build.repair ? money(cost.actual) : each(unitCost)}</BigNumber>
      <Muted>
        {build.repair ? 'is what the repair costs' : `each, ${each(cost.plannedUnitCost)} as planned`}
        <br />
        {writtenOff > 0 && (
          <>
            {money(writtenOff)} written off
            <br />
          </>
        )}
        {difference === 0 ? (
          <Chip $tone="ok">used as planned</Chip>
        ) : (
          <Chip $tone={difference > 0 ? 'short' : 'ok'}>
            {difference > 0 ? '+' : '−'}
            {money(Math.abs(difference))} {difference > 0 ? 'more' : 'less'} than planned
          </Chip>
        )}
      </Muted>
    </>
  );
}
