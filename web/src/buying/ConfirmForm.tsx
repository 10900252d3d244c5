import type { PurchaseOrder } from '@yosegi/contract';
import styled from 'styled-components';
import { z } from 'zod';
import { problemAt, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { QuantityCell } from '../ui/Cells.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { Grid } from '../ui/layout.ts';
import { plainTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { Row } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

/** A day that has passed is no promise any more. */
const dayToCome = (day: string | null) => (day !== null && day >= today() ? day : '');

const Card = styled.form`border: 1px solid var(--line); border-radius: 3px; padding: 12px 14px; margin-bottom: 14px; display: grid; gap: 10px; background: var(--paper);`;

/** What a supplier promised by phone or letter: how much of each line, and when. */
export function ConfirmForm({ order, onDone }: { order: PurchaseOrder; onDone: () => void }) {
  const notify = useNotify();
  const open = order.lines.filter((line) => Number(line.open) > 0);
  const screen = useTypedScreen(`confirm.${order.id}`);
  const [reference, setReference] = useTyped(screen, 'reference', order.reference);
  const [all, setAll] = useTyped(screen, 'all', '');
  const [typed, setTyped] = useTyped(
    screen,
    'typed',
    new Map(
      open.map((line) => [
        line.id,
        { quantity: line.confirmedQuantity ?? line.quantity, on: dayToCome(line.expectedOn) },
      ]),
    ),
    z.map(z.number(), z.object({ quantity: z.string(), on: z.string() })),
  );
  const set = (id: number, part: { quantity?: string; on?: string }) =>
    setTyped((before) => new Map(before).set(id, { quantity: '', on: '', ...before.get(id), ...part }));
  const confirm = useCommand(
    'confirmPurchase',
    (after) => {
      notify({ text: `${after.number} confirmed.` });
      onDone();
    },
    screen.forget,
  );
  return (
    <Card
      onSubmit={(event) => {
        event.preventDefault();
        const lines = open.map((line) => ({
          lineId: line.id,
          quantity: plainTyped(typed.get(line.id)?.quantity ?? '0', line),
          on: typed.get(line.id)?.on || null,
        }));
        confirm.mutate({
          params: { id: order.id },
          body: { version: order.version, reference: reference.trim(), lines },
        });
      }}
    >
      <Row $wrap $end>
        <Part $width={200}>
          <Field label="Their order number" value={reference} onChange={setReference} autoFocus />
        </Part>
        <Part $width={180}>
          <DayField
            label="One date for all lines"
            value={all}
            onChange={(day) => {
              setAll(day);
              if (day) for (const line of open) set(line.id, { on: day });
            }}
          />
        </Part>
      </Row>
      <Grid>
        <tbody>
          {open.map((line, index) => (
            <tr key={line.id}>
              <td>{line.name}</td>
              <td>
                <QuantityCell
                  label={`Promised of ${line.name}`}
                  value={typed.get(line.id)?.quantity ?? ''}
                  unit={line.unit}
                  onChange={(quantity) => set(line.id, { quantity })}
                  error={problemAt(confirm.error, `lines.${index}.quantity`)}
                />
              </td>
              <td>
                <DayField
                  label={`Promised date for ${line.name}`}
                  hideLabel
                  value={typed.get(line.id)?.on ?? ''}
                  onChange={(on) => set(line.id, { on })}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </Grid>
      <ProblemBox error={confirm.error} shownAt={['lines.*.quantity']} />
      <Row>
        <Button look="go" type="submit" busy={confirm.isPending}>
          Confirm {order.number}
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </Row>
    </Card>
  );
}
