import { entryFault } from '@yosegi/contract/problems';
import { parseQuantity, type Quantity, readExact } from '@yosegi/core/number';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Part } from '../ui/space.ts';
import { Row } from '../ui/text.ts';
import { type TypedScreen, useTyped } from '../ui/useTypedScreen.ts';
import type { PickJob } from './job.ts';

interface Props {
  readonly some: NonNullable<PickJob['some']>;
  /** Where what is typed is kept. */
  readonly screen: TypedScreen;
  readonly onFill: (needed: ReadonlyMap<number, Quantity>) => void;
}

/** Parts for some of a build now, and the rest later: every line is filled in by one number. */
export function SomeKits({ some, screen, onFill }: Props) {
  const format = useFormat();
  const [text, setText] = useTyped(screen, 'units', '');
  const read = readUnits(text, some);
  const fill = () => read.units !== null && onFill(some.neededFor(read.units));
  return (
    <Row $gap={6} $end>
      <Part $width={170}>
        <Field
          label={`Parts for how many of ${format.number(some.left)}?`}
          numeric
          value={text}
          onChange={setText}
          error={read.error}
          suffix={some.unit}
          onKeyDown={(event) => event.key === 'Enter' && fill()}
        />
      </Part>
      <Button isDisabled={read.units === null} onPress={fill}>
        Fill in
      </Button>
    </Row>
  );
}

function readUnits(text: string, { left, decimals }: Props['some']): { units: Quantity | null; error?: string } {
  if (text.trim() === '') return { units: null };
  try {
    const units = parseQuantity(text, decimals);
    if (units <= 0) return { units: null, error: 'Enter more than zero.' };
    return units > readExact(left) ? { units: null, error: `Only ${left} are left.` } : { units };
  } catch (error) {
    return { units: null, error: entryFault(error, 'Enter serial numbers, like SC-1 SC-2.') };
  }
}
