import type { BuildDetail, BuildLine } from '@yosegi/contract';
import { formatDecimal, readExact } from '@yosegi/core/number';
import { useState } from 'react';
import { problemAt, useCommand } from '../api/client.ts';
import { OutFields } from '../lines/OutFields.tsx';
import { NOTHING_TYPED, namedOf, type TypedTrack } from '../lines/typed.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { plainTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { Row } from '../ui/text.ts';

interface Props {
  readonly build: Pick<BuildDetail, 'id' | 'number'>;
  readonly line: BuildLine;
  readonly item: NonNullable<BuildLine['item']>;
  readonly onDone: () => void;
}

/** What can come back: what stands on the bench, and of what was added also what was never brought. */
export const canComeBack = ({ onBench, added, amount, used }: BuildLine): number =>
  added ? Math.max(0, readExact(amount) - readExact(used)) : readExact(onBench);

/** Takes some of a part back from the bench. */
export function TakeBack({ build, line, item, onDone }: Props) {
  const notify = useNotify();
  const [quantity, setQuantity] = useState(formatDecimal(canComeBack(line)));
  const [track, setTrack] = useState<TypedTrack>(NOTHING_TYPED);
  const back = useCommand('takeBack', () => {
    notify({
      text: line.added
        ? `${quantity} × ${item.name} taken off ${build.number}.`
        : `${quantity} × ${item.name} put back.`,
    });
    onDone();
  });
  const submit = () =>
    back.mutate({
      params: { id: build.id },
      body: { lineId: line.id, quantity: plainTyped(quantity, item), serials: namedOf(item, track).serials },
    });
  return (
    <>
      <Row $gap={6} $end $wrap>
        <Part $width={160}>
          <Field
            label="Quantity to put back"
            numeric
            autoFocus
            value={quantity}
            onChange={setQuantity}
            suffix={item.unit}
            error={problemAt(back.error, 'quantity')}
            onKeyDown={(event) => {
              if (event.key === 'Enter') submit();
              if (event.key === 'Escape') onDone();
            }}
          />
        </Part>
        <Button busy={back.isPending} onPress={submit}>
          Put back
        </Button>
        <Button look="ghost" onPress={onDone}>
          Cancel
        </Button>
      </Row>
      {item.tracking === 'serial' && line.pieces.length > 1 && (
        <OutFields
          item={item}
          pieces={line.pieces}
          typed={track}
          onChange={setTrack}
          quantity={Number(quantity) || 0}
          errorAt={(name) => problemAt(back.error, name)}
        />
      )}
      <ProblemBox error={back.error} shownAt={['quantity', 'serials']} />
    </>
  );
}
