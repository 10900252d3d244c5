import type { api, BuildDetail, Problem } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { formatDecimal } from '@yosegi/core/number';
import { z } from 'zod';
import { useQuestion } from '../api/client.ts';
import { leftOf, NOTHING_USED, reckonUse, TypedUse, UseGrid, usedLines } from '../builds/index.ts';
import { InFields } from '../lines/InFields.tsx';
import { NOTHING_TYPED, namedInOf, TypedTrack } from '../lines/typed.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Answer } from '../ui/States.tsx';
import { Part, Section } from '../ui/space.ts';
import { Muted, Row } from '../ui/text.ts';
import { type TypedScreen, useTyped } from '../ui/useTypedScreen.ts';

/** A build that is finished by shipping, as the wire takes it; null while what is typed cannot be read. */
export type Finishing = NonNullable<Input<typeof api.shipOrder>['body']['finishes']>[number] | null;

interface Props {
  /** Where what is typed stays until the order has left. */
  readonly screen: TypedScreen;
  readonly buildId: number;
  readonly number: string;
  /** Whether it is finished in the same act; undefined while it is not. */
  readonly finishing: Finishing | undefined;
  readonly onChange: (finishing: Finishing | undefined) => void;
  readonly refused: Problem | null;
}

/** A build for the order that is not finished yet, and what it really used where it is finished as the order ships. */
export function FinishFirst(props: Props) {
  const build = useQuestion('build', { params: { id: props.buildId } });
  return <Answer of={build}>{(data) => <Finished {...props} build={data} />}</Answer>;
}

const Typed = z.object({ good: z.string(), used: TypedUse, track: TypedTrack });
type Typed = Readonly<z.infer<typeof Typed>>;

function Finished({ screen, build, finishing, onChange, refused }: Props & { build: BuildDetail }) {
  const format = useFormat();
  const left = formatDecimal(leftOf(build));
  const [typed, setTyped] = useTyped(
    screen,
    `finish.${build.id}`,
    { good: left, used: NOTHING_USED, track: NOTHING_TYPED },
    Typed,
  );
  const reckoning = reckonUse(build, typed.good, typed.used.actuals);
  const isOn = finishing !== undefined;
  const set = (part: Partial<Typed>) => {
    const next = { ...typed, ...part };
    setTyped(next);
    onChange(bodyOf(build, next));
  };
  return (
    <Section $top={14} aria-label={`Finish ${build.number}`}>
      <Row>
        <Button
          look={isOn ? 'plain' : 'ghost'}
          aria-pressed={isOn}
          onPress={() => onChange(isOn ? undefined : bodyOf(build, typed))}
        >
          {isOn ? '✓ ' : ''}Finish {build.number} with it
        </Button>
        <Muted>
          {left} × {build.name}, {build.state === 'planned' ? 'not started yet' : 'on the bench'}
        </Muted>
      </Row>
      {isOn && (
        <>
          <Row $start $top={8} $bottom={8} $wrap>
            <Part $width={130}>
              <Field
                label="Good units"
                numeric
                value={typed.good}
                onChange={(good) => set({ good })}
                suffix={build.unit}
                error={reckoning.faults.get('good') ?? (refused?.field === 'good' ? refused.detail : undefined)}
              />
            </Part>
            {build.tracking !== 'none' && (
              <InFields
                item={{ id: build.itemId, name: build.name, tracking: build.tracking }}
                typed={typed.track}
                onChange={(track) => set({ track })}
                quantity={Number(typed.good) || 0}
                errorAt={(name) => (refused?.field === name ? refused.detail : undefined)}
                mayReturn
              />
            )}
            <Muted>at {format.unitCost(formatDecimal(reckoning.cost.unitCost))} each</Muted>
          </Row>
          <UseGrid
            build={build}
            cost={reckoning.cost}
            actuals={reckoning.actuals}
            typed={typed.used}
            onChange={(used) => set({ used })}
            faults={reckoning.faults}
            refused={refused}
          />
        </>
      )}
    </Section>
  );
}

function bodyOf(build: BuildDetail, typed: Typed): Finishing {
  const { faults, actuals } = reckonUse(build, typed.good, typed.used.actuals);
  if (faults.size > 0) return null;
  return {
    buildId: build.id,
    version: build.version,
    good: typed.good.trim(),
    outputBinId: build.outputBinId,
    ...namedInOf({ id: build.itemId, name: build.name, tracking: build.tracking }, typed.track),
    lines: usedLines(build, typed.used, actuals),
  };
}
