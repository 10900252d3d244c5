import type { BuildRow } from '@yosegi/contract';
import { Navigate, useLocation, useParams, useSearchParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { useList } from '../api/list.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Export, type FileColumn } from '../ui/Export.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { useFormat } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import { Sheet, Strip, StripHead, StripList, Three } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer } from '../ui/States.tsx';
import { StripItem, StripSection } from '../ui/StripItem.tsx';
import { Late, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { Bench } from './Bench.tsx';
import { BuildSheet } from './BuildSheet.tsx';
import { isAsked, isHeldUp, pageOf } from './held.ts';

const PlanForm = later(() => import('./PlanForm.tsx'), 'PlanForm');

const FILE: readonly FileColumn<BuildRow>[] = [
  { title: 'Build', text: ({ number }) => number },
  { title: 'Product', text: ({ name }) => name },
  { title: 'Code', text: ({ code }) => code },
  { title: 'Status', text: ({ state }) => state.replace('-', ' ') },
  { title: 'Quantity', text: ({ quantity }) => quantity, isAmount: true },
  { title: 'Finished', text: ({ finished }) => finished, isAmount: true },
  { title: 'Due', text: ({ due }) => due ?? '' },
  { title: 'Lines to pick', text: ({ pickLines }) => String(pickLines), isAmount: true },
  { title: 'Lines picked', text: ({ pickedLines }) => String(pickedLines), isAmount: true },
  { title: 'Short of', text: ({ waiting }) => waiting.map(({ name }) => name).join(', ') },
  { title: 'Orders', text: ({ orders }) => [...new Set(orders.map(({ order }) => order))].join(', ') },
];

/** Builds: the list, and one of them with everything that can be done to it. */
export function BuildPage() {
  const { id } = useParams();
  const [search] = useSearchParams();
  const q = useSought();
  const [state, setState] = useAddress('state', 'open');
  const planning = search.get('plan');
  const list = useList('builds', { state, q: q || undefined }, state === 'open');
  const open = useList('builds', { state: 'open' });
  return (
    <Three $margin={false}>
      <Strip>
        <StripHead>
          <Finder label="Find a build" placeholder="Find a build" />
          <Choice
            label="Which builds"
            hideLabel
            value={state}
            onChange={setState}
            options={[
              ['open', 'Open builds'],
              ['finished', 'Finished'],
              ['cancelled', 'Cancelled'],
            ]}
          />
          <LinkButton to="/build?plan=new">Plan a build</LinkButton>
          <Row $gap={4} $wrap>
            <LinkButton look="ghost" to="/build/board">
              Board
            </LinkButton>
            <LinkButton look="ghost" to="/build/tasks">
              Tasks
            </LinkButton>
            <LinkButton look="ghost" to="/build/repairs">
              Repairs
            </LinkButton>
            <Export name="Builds" columns={FILE} rows={list.everyRow} />
          </Row>
        </StripHead>
        <StripList aria-label="Builds">
          <Answer of={list}>
            {({ rows }) =>
              state === 'open' ? (
                <>
                  <Group title="On the bench" rows={rows.filter((row) => row.state === 'on-bench')} />
                  <Group
                    title="Ready to start"
                    rows={rows.filter((row) => row.state === 'planned' && !isHeldUp(row))}
                  />
                  <Group
                    title="Short of parts"
                    rows={rows.filter((row) => row.state === 'planned' && !isAsked(row) && isHeldUp(row))}
                  />
                  <Group
                    title="Waiting for a customer"
                    rows={rows.filter((row) => row.state === 'planned' && isAsked(row))}
                  />
                </>
              ) : (
                <Group title={state === 'finished' ? 'Finished' : 'Cancelled'} rows={rows} />
              )
            }
          </Answer>
          <More of={list.pages}>Show older</More>
        </StripList>
      </Strip>
      {id ? (
        <Build key={id} id={Number(id)} />
      ) : (
        <Answer of={open}>
          {({ rows }) =>
            planning === null ? (
              <Bench rows={rows} />
            ) : (
              <Sheet>
                <PlanForm
                  itemId={Number(planning) || null}
                  purpose={search.get('purpose') === 'rework' ? 'rework' : 'build'}
                />
              </Sheet>
            )
          }
        </Answer>
      )}
    </Three>
  );
}

function Group({ title, rows }: { title: string; rows: readonly BuildRow[] }) {
  const format = useFormat();
  return (
    <StripSection title={title} rows={rows}>
      {(row) => (
        <StripItem
          key={row.id}
          to={pageOf(row)}
          code={row.code}
          title={`${format.number(row.quantity)} × ${row.name}`}
          under={
            <>
              {row.number}
              {row.due && <> · {row.late ? <Late>due {format.day(row.due)}</Late> : `due ${format.day(row.due)}`}</>}
              {row.repair && ` · for ${row.repair.customer}`}
              {row.orders[0] && ` · for ${row.orders[0].customer}${row.orders.length > 1 ? ' and others' : ''}`}
            </>
          }
        />
      )}
    </StripSection>
  );
}

function Build({ id }: { id: number }) {
  const build = useQuestion('build', { params: { id } });
  // The work of a repair stands on the repair's own page, at the line that was asked for.
  const { search } = useLocation();
  return (
    <Answer of={build}>
      {(data) => (data.repair ? <Navigate to={pageOf(data) + search} replace /> : <BuildSheet build={data} />)}
    </Answer>
  );
}
