import type { RepairRow } from '@yosegi/contract';
import { Link, useParams, useSearchParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { useList } from '../api/list.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Export, type FileColumn } from '../ui/Export.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { useFormat } from '../ui/format.ts';
import { Cell, Grid, Sheet, Strip, StripHead, StripList, Three } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripItem, StripSection } from '../ui/StripItem.tsx';
import { H1 } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Push, Row } from '../ui/text.ts';
import { dayOf } from '../ui/today.ts';
import { useAddress } from '../ui/useAddress.ts';
import { RepairSheet } from './RepairSheet.tsx';
import { TakeInForm } from './TakeInForm.tsx';
import { groups, hereWords, standsAs, toneOf } from './words.ts';

const FILE: readonly FileColumn<RepairRow>[] = [
  { title: 'Repair', text: ({ number }) => number },
  { title: 'Customer', text: ({ customer }) => customer },
  { title: 'Item', text: ({ name }) => name },
  { title: 'Code', text: ({ code }) => code },
  { title: 'Serial number', text: ({ serial }) => serial ?? '' },
  { title: 'Fault', text: ({ fault }) => fault },
  { title: 'Status', text: ({ state }) => state.replaceAll('-', ' ') },
  { title: 'Wanted on', text: ({ wantedOn }) => wantedOn ?? '' },
  { title: 'Estimate', text: ({ estimate }) => estimate ?? '', isAmount: true },
  { title: 'Price agreed', text: ({ price }) => price ?? '', isAmount: true },
  { title: 'Charged', text: ({ charged }) => charged ?? '', isAmount: true },
];

/** Goods of customers that are here to be repaired: the list, one of them, and taking one in. */
export function RepairsPage() {
  const { id } = useParams();
  const [search] = useSearchParams();
  const q = useSought();
  const [show, setShow] = useAddress('show', 'here');
  const isHere = show !== 'given-back';
  const list = useList('repairs', { show: isHere ? 'here' : 'given-back', q: q || undefined }, isHere);
  return (
    <Three $margin={false}>
      <Strip {...(id ? {} : { 'data-alone': true })}>
        <StripHead>
          <Finder label="Find a repair" placeholder="Number, customer, serial…" />
          <Choice
            label="Which repairs"
            hideLabel
            value={show}
            onChange={setShow}
            options={[
              ['here', 'Here now'],
              ['given-back', 'Given back'],
            ]}
          />
          <Row $wrap>
            <LinkButton to="/build/repairs?new=1">Take in a repair</LinkButton>
            <Push />
            <Export name="Repairs" columns={FILE} rows={list.everyRow} />
            <LinkButton look="ghost" to="/build">
              Builds
            </LinkButton>
          </Row>
        </StripHead>
        <StripList aria-label="Repairs">
          <Answer of={list}>
            {({ rows }) =>
              show === 'given-back' ? (
                <Group title="Given back" rows={rows} />
              ) : (
                groups.map(([title, isIn]) => <Group key={title} title={title} rows={rows.filter(isIn)} />)
              )
            }
          </Answer>
          <More of={list.pages}>Show older</More>
        </StripList>
      </Strip>
      {id ? (
        <One key={id} id={Number(id)} />
      ) : search.has('new') ? (
        <Sheet>
          <H1 $bottom={4}>Take in a repair</H1>
          <Lead>The goods stay the customer’s. They have no value in our books and are never counted as ours.</Lead>
          <TakeInForm customerId={Number(search.get('for')) || null} />
        </Sheet>
      ) : (
        <Answer of={list}>{({ rows }) => <Overview rows={rows} isHere={isHere} />}</Answer>
      )}
    </Three>
  );
}

function Group({ title, rows }: { title: string; rows: readonly RepairRow[] }) {
  const format = useFormat();
  return (
    <StripSection title={title} rows={rows}>
      {(row) => (
        <StripItem
          key={row.id}
          to={`/build/repairs/${row.id}`}
          code={row.code}
          title={`${row.customer}: ${row.name}`}
          under={
            <>
              {row.number}
              {row.wantedOn && (
                <>
                  {' · '}
                  {row.late ? <Late>wanted {format.day(row.wantedOn)}</Late> : `wanted ${format.day(row.wantedOn)}`}
                </>
              )}
            </>
          }
        />
      )}
    </StripSection>
  );
}

function One({ id }: { id: number }) {
  const repair = useQuestion('repair', { params: { id } });
  return <Answer of={repair}>{(data) => <RepairSheet repair={data} />}</Answer>;
}

function Overview({ rows, isHere }: { rows: readonly RepairRow[]; isHere: boolean }) {
  const format = useFormat();
  if (rows.length === 0)
    return (
      <Sheet>
        <EmptyState
          isPage
          title={isHere ? 'No repairs here' : 'No repairs given back yet'}
          action={<LinkButton to="/build/repairs?new=1">Take in a repair</LinkButton>}
        >
          Take in what a customer brings for repair. It stays theirs, and goes back with a report of the work done.
        </EmptyState>
      </Sheet>
    );
  return (
    <Sheet>
      <h1>{isHere ? hereWords(rows) : 'Repairs that were given back'}</h1>
      <Grid $full $top={14}>
        <thead>
          <tr>
            <th>Item</th>
            <th>Customer</th>
            <th>Problem</th>
            <th>Status</th>
            <th>{isHere ? 'Wanted' : 'Given back'}</th>
            <th className="num">{isHere ? 'Agreed price' : 'Charged'}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.id}>
              <td>
                <Cell>
                  <Tile code={row.code} size={28} />
                  <span>
                    <Link to={`/build/repairs/${row.id}`}>{row.name}</Link>
                    <br />
                    <Faint>
                      {row.number}
                      {row.serial && ` · ${row.serial}`}
                    </Faint>
                  </span>
                </Cell>
              </td>
              <td>{row.customer}</td>
              <td>{row.fault}</td>
              <td>
                <Chip $tone={toneOf(row)}>{standsAs(row)}</Chip>
              </td>
              <td className="one-line">
                {isHere ? (
                  row.wantedOn === null ? (
                    '–'
                  ) : row.late ? (
                    <Late>{format.day(row.wantedOn)}</Late>
                  ) : (
                    format.day(row.wantedOn)
                  )
                ) : (
                  format.day(row.givenBackAt === null ? '' : dayOf(row.givenBackAt))
                )}
              </td>
              <td className="num">
                {row.warranty
                  ? 'warranty'
                  : (isHere ? row.price : row.charged) === null
                    ? '–'
                    : format.money((isHere ? row.price : row.charged) ?? '0')}
              </td>
            </tr>
          ))}
        </tbody>
      </Grid>
    </Sheet>
  );
}
