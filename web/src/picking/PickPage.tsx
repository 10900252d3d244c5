import { useSyncExternalStore } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Scroll } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead } from '../ui/text.ts';
import { PickPhone } from './PickPhone.tsx';
import { PickTable } from './PickTable.tsx';

const Jobs = styled.div`padding: 20px 24px; display: grid; gap: 8px; max-width: 900px;`;
const Job = styled(Link)`
  display: grid; grid-template-columns: 44px minmax(0, 1fr) auto; gap: 14px; align-items: center; background: var(--sheet); border: 1px solid var(--line-soft);
  border-left: 5px solid var(--indigo); padding: 12px 14px; border-radius: 2px; color: inherit; text-decoration: none; min-height: 60px; line-height: 1.25;
`;

const NARROW = '(max-width: 700px)';
const useIsPhone = () =>
  useSyncExternalStore(
    (changed) => {
      const query = window.matchMedia(NARROW);
      query.addEventListener('change', changed);
      return () => query.removeEventListener('change', changed);
    },
    () => window.matchMedia(NARROW).matches,
  );

/** What is to be picked, and picking it: a table at the desk, one thing at a time on a phone. */
export function PickPage() {
  const { id } = useParams();
  return id ? <PickBuild id={Number(id)} /> : <PickList />;
}

function PickList() {
  const format = useFormat();
  const list = useQuestion('builds', { query: { state: 'on-bench', limit: 200 } });
  return (
    <Scroll>
      <Answer of={list}>
        {({ rows }) => {
          const open = rows.filter((row) => row.pickedLines < row.pickLines);
          if (open.length === 0) {
            return (
              <EmptyState title="Nothing to pick" action={<LinkButton to="/build">See the builds</LinkButton>}>
                Builds that were sent to the bench wait here until their parts have been brought.
              </EmptyState>
            );
          }
          return (
            <Jobs>
              <h1>{count(open.length, 'build')} to pick for.</h1>
              <Lead>The earliest due first.</Lead>
              {open.map((row) => (
                <Job key={row.id} to={`/pick/${row.id}`}>
                  <Tile code={row.code} size={44} />
                  <span>
                    <b>
                      {format.number(row.quantity)} × {row.name}
                    </b>
                    <br />
                    <Faint>
                      {row.number} · {row.pickedLines} of {count(row.pickLines, 'line')} picked
                    </Faint>
                  </span>
                  {row.due &&
                    (row.late ? <Late>due {format.day(row.due)}</Late> : <span>due {format.day(row.due)}</span>)}
                </Job>
              ))}
            </Jobs>
          );
        }}
      </Answer>
    </Scroll>
  );
}

function PickBuild({ id }: { id: number }) {
  const isPhone = useIsPhone();
  const build = useQuestion('build', { params: { id } });
  const stores = useQuestion('stores', {});
  return (
    <Answer of={stores}>
      {(places) => (
        <Answer of={build}>
          {(data) => {
            if (data.state !== 'on-bench') {
              return (
                <EmptyState
                  title={`${data.number} is not on the bench`}
                  action={<LinkButton to={`/build/${id}`}>Open {data.number}</LinkButton>}
                >
                  Parts are picked for a build on the bench; this one is {data.state}.
                </EmptyState>
              );
            }
            return isPhone ? <PickPhone build={data} stores={places} /> : <PickTable build={data} stores={places} />;
          }}
        </Answer>
      )}
    </Answer>
  );
}
