import type { CountGroup } from '@yosegi/contract';
import type { FormEvent } from 'react';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { z } from 'zod';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Grid, Page } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Part } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Faint, Lead, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { CountSheet } from './CountSheet.tsx';
import { Wishes } from './Wishes.tsx';

const Begin = styled.form`background: var(--sheet); border: 1px solid var(--line-soft); border-left: 5px solid var(--walnut); padding: 14px 16px; margin: 16px 0; display: grid; gap: 12px;`;
const Bins = styled.fieldset`
  border: 0; padding: 0; margin: 0; display: flex; flex-wrap: wrap; gap: 4px 14px; legend { font-weight: 600; padding: 0 0 4px; }
`;

/** Counts: the list and the start of another, or one of them. */
export function CountsPage() {
  const { id } = useParams();
  return id ? <CountSheet key={id} id={Number(id)} /> : <List />;
}

function List() {
  const format = useFormat();
  const go = useNavigate();
  const counts = useQuestion('counts', {});
  return (
    <Page>
      <Answer of={counts}>
        {(rows) => {
          const open = rows.filter((row) => row.state === 'open');
          const table = rows.length > 0 && (
            <Grid>
              <thead>
                <tr>
                  <th>Count</th>
                  <th>Items</th>
                  <th>Started</th>
                  <th className="num">Counted</th>
                  <th>Status</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.id}>
                    <td>
                      <Button look="ghost" onPress={() => void go(`/stock/counts/${row.id}`)}>
                        {row.number}
                      </Button>
                    </td>
                    <td>{row.scope}</td>
                    <td>
                      {format.moment(row.begunAt)} <Faint>{row.begunBy}</Faint>
                    </td>
                    <td className="num">
                      {row.counted} of {row.lines}
                    </td>
                    <td>
                      <Chip $tone={row.state === 'open' ? 'coming' : row.state === 'approved' ? 'ok' : 'held'}>
                        {row.state}
                      </Chip>
                    </td>
                  </tr>
                ))}
              </tbody>
            </Grid>
          );
          return (
            <>
              <h1>{open.length === 0 ? 'No open counts.' : `${count(open.length, 'count')} open.`}</h1>
              <Lead>
                Counters don’t see expected quantities. Keep working: each line is compared with stock at the time it
                was counted.
              </Lead>
              {open.length > 0 && table}
              <Wishes onBegun={(begun) => void go(`/stock/counts/${begun}`)} />
              <BeginCount onBegun={(begun) => void go(`/stock/counts/${begun}`)} />
              {open.length === 0 && table}
            </>
          );
        }}
      </Answer>
    </Page>
  );
}

function BeginCount({ onBegun }: { onBegun: (id: number) => void }) {
  const stores = useQuestion('stores', {}).data ?? [];
  const screen = useTypedScreen('count.new');
  const [chosen, setChosen] = useTyped<ReadonlySet<number>>(screen, 'chosen', new Set(), z.set(z.number()));
  const [q, setQ] = useTyped(screen, 'q', '');
  const [notSince, setNotSince] = useTyped(screen, 'notSince', '');
  const [group, setGroup] = useTyped(screen, 'group', '');
  const suppliers = useQuestion('suppliers', {}).data ?? [];
  const begin = useCommand('beginCount', (begun) => {
    screen.forget();
    onBegun(begun.id);
  });
  const toggle = (ids: readonly number[], on: boolean) => {
    const next = new Set(chosen);
    for (const id of ids) {
      if (on) next.add(id);
      else next.delete(id);
    }
    setChosen(next);
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (chosen.size === 0 || begin.isPending) return;
    const supplierId = group.startsWith('from-') ? Number(group.slice(5)) : null;
    const kind = supplierId === null && group !== '' ? (group as CountGroup) : null;
    begin.mutate({ body: { binIds: [...chosen], q, notSince: notSince || null, group: kind, supplierId } });
  };
  return (
    <Begin aria-label="Start a count" onSubmit={submit}>
      <h2>What do you want to count?</h2>
      {stores.map((store) => {
        const shelves = store.bins.filter((bin) => bin.kind === 'shelf');
        const ids = shelves.map((bin) => bin.id);
        return (
          shelves.length > 0 && (
            <Bins key={store.id}>
              <legend>
                <Tick
                  isOn={ids.every((id) => chosen.has(id))}
                  isSome={ids.some((id) => chosen.has(id)) && !ids.every((id) => chosen.has(id))}
                  onChange={(isOn) => toggle(ids, isOn)}
                >
                  {store.name}
                </Tick>
              </legend>
              {shelves.map((bin) => (
                <Tick key={bin.id} isOn={chosen.has(bin.id)} onChange={(isOn) => toggle([bin.id], isOn)}>
                  {bin.code}
                </Tick>
              ))}
            </Bins>
          )
        );
      })}
      <Row $wrap $gap={10} $end>
        <Part $width={230}>
          <Field label="Item name contains" placeholder="Code or name" value={q} onChange={setQ} />
        </Part>
        <Part $width={210}>
          <Choice
            label="Items"
            value={group}
            onChange={setGroup}
            options={[
              ['', 'All items'],
              ['bought', 'Bought items'],
              ['made', 'Made items'],
              ['lot', 'Items tracked by lot'],
              ['serial', 'Items tracked by serial number'],
              ...suppliers.map((one): [string, string] => [`from-${one.id}`, `Sold by ${one.name}`]),
            ]}
          />
        </Part>
        <Part $width={190}>
          <DayField
            label="Not counted since"
            value={notSince}
            onChange={setNotSince}
            error={problemAt(begin.error, 'notSince')}
          />
        </Part>
        <Button type="submit" look="go" busy={begin.isPending} isDisabled={chosen.size === 0}>
          {chosen.size === 0 ? 'Start the count' : `Start the count · ${count(chosen.size, 'bin')}`}
        </Button>
      </Row>
      <ProblemBox error={begin.error} shownAt={['notSince']} />
    </Begin>
  );
}
