import type { LaterKit, Order, OrderLine } from '@yosegi/contract';
import { useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Para, Section } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Muted, Row } from '../ui/text.ts';

/** What a kit on a line would be by its later revision; taken over only after it was seen. */
export function LaterKitPanel({ order, line, onDone }: { order: Order; line: OrderLine; onDone: () => void }) {
  const later = useQuestion('laterKit', { params: { id: line.id } });
  return <Answer of={later}>{(data) => <Difference {...{ order, line, onDone }} later={data} />}</Answer>;
}

function Difference({
  order,
  line,
  later,
  onDone,
}: {
  order: Order;
  line: OrderLine;
  later: LaterKit;
  onDone: () => void;
}) {
  const format = useFormat();
  const notify = useNotify();
  const take = useCommand('takeLaterKit', () => {
    notify({ text: `${later.name} changed to revision ${later.later}.` });
    onDone();
  });
  const changed = later.parts.filter(({ before, after }) => before !== after);
  const amount = (text: string | null, part: LaterKit['parts'][number]) =>
    text === null ? '–' : format.quantity(text, part.unit, part.decimals);
  return (
    <Section $top={10} $bottom={10} $max={560} aria-label={`Revision ${later.later} of ${later.name}`}>
      <h3>
        {changed.length === 0
          ? `Revision ${later.later} has the same parts.`
          : `Revision ${later.later} would change ${changed.length === 1 ? 'one part' : `${changed.length} parts`}.`}
      </h3>
      {changed.length > 0 && (
        <Grid $full>
          <thead>
            <tr>
              <th>Part</th>
              <th className="num">On this line</th>
              <th className="num">By revision {later.later}</th>
            </tr>
          </thead>
          <tbody>
            {changed.map((part) => (
              <tr key={part.code}>
                <td>
                  <Cell>
                    <Tile code={part.code} size={22} />
                    {part.name}
                  </Cell>
                </td>
                <td className="num">{amount(part.before, part)}</td>
                <td className="num">
                  <b>{amount(part.after, part)}</b>
                </td>
              </tr>
            ))}
          </tbody>
        </Grid>
      )}
      <Para $top={6}>
        {later.price === later.laterPrice ? (
          <Muted>The price stays {format.money(later.price)}.</Muted>
        ) : (
          <Muted>
            The price goes from {format.money(later.price)} to <b>{format.money(later.laterPrice)}</b>.
          </Muted>
        )}{' '}
        <Faint>Changes to the kit on this line are lost with the old revision.</Faint>
      </Para>
      <ProblemBox error={take.error} />
      <Row $top={8}>
        <Button
          look="go"
          busy={take.isPending}
          onPress={() =>
            take.mutate({ params: { id: line.id }, body: { version: order.version, revision: later.later } })
          }
        >
          Take over revision {later.later}
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </Row>
    </Section>
  );
}
