import type { Order } from '@yosegi/contract';
import { readForText } from '@yosegi/core/number';
import { useCommand } from '../api/client.ts';
import { LabelButton } from '../devices/index.ts';
import { Button } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { H2 } from '../ui/space.ts';
import { Faint, Row } from '../ui/text.ts';

/** What stands in the parcel of an order, and putting it back on its shelf. */
export function ParcelCard({ order }: { order: Order }) {
  const format = useFormat();
  const notify = useNotify();
  const back = useCommand('unpackOrder', ({ id: documentId, number }) =>
    notify({ text: `${number} put back.`, documentId }),
  );
  const packed = order.lines.flatMap((line) => line.parts.filter((part) => readForText(part.packed) > 0n));
  const [parcel] = order.parcels.slice(-1);
  if (!parcel || packed.length === 0) return null;
  return (
    <>
      <H2 $top={18}>In parcel {parcel.number}</H2>
      {packed.map((part) => (
        <KeyValue key={part.id}>
          <span>
            {format.quantity(part.packed, part.item.unit, part.item.decimals)} {part.item.name}
            {part.pieces.length > 0 && (
              <Faint> {part.pieces.map((piece) => piece.serial ?? piece.lot).join(', ')}</Faint>
            )}
            {part.stuck !== '0' && (
              <>
                {' '}
                <Chip $tone="held">{format.number(part.stuck)} on hold: can’t ship</Chip>
              </>
            )}
          </span>
          <Button
            look="ghost"
            busy={back.isPending}
            aria-label={`Put ${part.item.name} back`}
            onPress={() =>
              back.mutate({
                params: { id: order.id },
                body: {
                  lines: [
                    {
                      partId: part.id,
                      quantity: part.packed,
                      serials: part.pieces.flatMap((piece) => piece.serial ?? []),
                    },
                  ],
                },
              })
            }
          >
            put back
          </Button>
        </KeyValue>
      ))}
      <ProblemBox error={back.error} />
      <Row $top={6}>
        <LabelButton ask={{ parcelId: parcel.id }} look="ghost">
          Print its label
        </LabelButton>
      </Row>
    </>
  );
}
