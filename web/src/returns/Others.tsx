import type { Returnable } from '@yosegi/contract';
import { type Condition, conditions } from '@yosegi/core/returns';
import { z } from 'zod';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { Part } from '../ui/space.ts';
import { Muted, Row } from '../ui/text.ts';
import { Named, NONE_NAMED, WhichBack } from './WhichBack.tsx';

/** Some of a line that come back in another condition than the rest of it. */
export const Other = Named.extend({ quantity: z.string(), condition: z.enum(conditions) });
export type Other = z.infer<typeof Other>;

export const conditionChoices = conditions.map((one): [string, string] => [one, one]);

interface Props {
  readonly of: Pick<Returnable, 'name' | 'serials' | 'lots'>;
  readonly others: readonly Other[];
  readonly onChange: (others: readonly Other[]) => void;
  readonly errorAt: (nth: number, name: string) => string | undefined;
}

/** The further conditions of a line, each with how many and which, and the way to one more. */
export function Others({ of, others, onChange, errorAt }: Props) {
  const set = (nth: number, part: Partial<Other>) =>
    onChange(others.map((own, index) => (index === nth ? { ...own, ...part } : own)));
  return (
    <>
      {others.map((own, nth) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: they have nothing else that tells them apart
        <Row key={nth} $gap={8} $end $wrap $top={6}>
          <Muted>and</Muted>
          <Part $width={90}>
            <Field
              label={`Extra quantity of ${of.name}`}
              hideLabel
              numeric
              value={own.quantity}
              onChange={(quantity) => set(nth, { quantity })}
              error={errorAt(nth, 'quantity')}
            />
          </Part>
          <Part $width={130}>
            <Choice
              label={`Condition of ${of.name}`}
              hideLabel
              value={own.condition}
              onChange={(next) => set(nth, { condition: next as Condition })}
              options={conditionChoices}
            />
          </Part>
          <WhichBack
            of={of}
            named={own}
            onChange={(named) =>
              set(nth, { ...named, ...(named.serials.length > 0 ? { quantity: String(named.serials.length) } : {}) })
            }
            errorAt={(name) => errorAt(nth, name)}
          />
          <Button look="ghost" onPress={() => onChange(others.filter((_, index) => index !== nth))}>
            Remove
          </Button>
        </Row>
      ))}
      <Button
        look="ghost"
        aria-label={`Add some in another condition: ${of.name}`}
        onPress={() => onChange([...others, { quantity: '', condition: 'damaged', ...NONE_NAMED }])}
      >
        Add some in another condition
      </Button>
    </>
  );
}
