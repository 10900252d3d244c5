import type { UnitDetail } from '@yosegi/contract';
import { documentKinds } from '@yosegi/contract';
import { Link, useParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { LabelButton } from '../devices/index.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { useFormat } from '../ui/format.ts';
import { Grid, KeyValue, Page, SheetHead } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { H2, Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Push, Row } from '../ui/text.ts';
import { dayOf } from '../ui/today.ts';
import { placeOf, toneOf } from './SerialsPage.tsx';

/** One unit: where it is, what it cost and brought, and everything that ever happened to it. */
export function SerialPage() {
  const { id } = useParams();
  const unit = useQuestion('serialUnit', { params: { id: Number(id) } });
  return <Page $white>{<Answer of={unit}>{(data) => <Unit unit={data} />}</Answer>}</Page>;
}

function Unit({ unit }: { unit: UnitDetail }) {
  const format = useFormat();
  return (
    <>
      <SheetHead>
        <Tile code={unit.code} size={52} />
        <div>
          <h1>
            {unit.name}, {unit.serial}
          </h1>
          <Lead>
            <Chip $tone={toneOf(unit.state)}>{unit.state}</Chip>
            {placeOf(unit) && ` · ${placeOf(unit)}`}
            {unit.held && ` · held: ${unit.held}`}
          </Lead>
        </div>
        <Push />
        <Row>
          <LabelButton ask={{ serialIds: [unit.id] }}>Label</LabelButton>
          <LinkButton to={`/stock/items/${unit.itemId}`}>The item</LinkButton>
          <LinkButton look="ghost" to="/stock/serials">
            All pieces
          </LinkButton>
        </Row>
      </SheetHead>
      <Part $width={420}>
        {unit.cost !== null && (
          <KeyValue>
            Cost so far <b>{format.money(unit.cost)}</b>
          </KeyValue>
        )}
        {unit.price !== null && (
          <KeyValue>
            Sold to {unit.customer} for <b>{format.money(unit.price)}</b>
          </KeyValue>
        )}
        {unit.profit !== null && (
          <KeyValue>
            Profit <b>{format.money(unit.profit)}</b>
          </KeyValue>
        )}
        {unit.warrantyUntil && (
          <KeyValue>
            Under warranty until <b>{format.day(unit.warrantyUntil)}</b>
          </KeyValue>
        )}
      </Part>
      <H2 $top={18} $bottom={6}>
        History
      </H2>
      <Grid $full>
        <thead>
          <tr>
            <th>When</th>
            <th>Event</th>
            <th>About</th>
            <th>Who</th>
            <th className="num">Value</th>
          </tr>
        </thead>
        <tbody>
          {unit.history.map((event, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: what happened never moves
            <tr key={index}>
              <td className="one-line">{format.day(dayOf(event.at))}</td>
              <td>
                <Link
                  to={
                    event.documentId ? `/stock/documents/${event.documentId}` : `/build/repairs/${event.repairId ?? ''}`
                  }
                >
                  {event.number}
                </Link>{' '}
                {event.kind in documentKinds
                  ? documentKinds[event.kind as keyof typeof documentKinds].name
                  : event.kind}
                {event.undoneBy && <Faint> undone by {event.undoneBy}</Faint>}
              </td>
              <td>{event.about}</td>
              <td>{event.person}</td>
              <td className="num">{event.value === null ? '–' : format.money(event.value)}</td>
            </tr>
          ))}
        </tbody>
      </Grid>
    </>
  );
}
