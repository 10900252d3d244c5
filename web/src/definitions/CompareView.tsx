import type { Definition, Revision } from '@yosegi/contract';
import type { LineChange } from '@yosegi/core/definitions';
import { formatDecimal } from '@yosegi/core/number';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Cell, Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { H2, Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Row } from '../ui/text.ts';
import { difference, factNames, type ShownLine } from './difference.ts';

const Sign = styled.b<{ $change: string }>`
  display: inline-block; min-width: 62px; white-space: nowrap; font-size: 12px; padding: 1px 6px; border-radius: 2px; border: 1px solid;
  ${({ $change }) =>
    $change === 'added'
      ? 'color: var(--ok-ink); background: var(--ok-wash); border-style: solid;'
      : $change === 'gone'
        ? 'color: var(--short-ink); background: var(--short-wash); border-style: dashed;'
        : 'color: var(--coming-ink); background: var(--coming-wash); border-style: dotted;'}
`;
const signs = { added: '+ added', gone: '− gone', changed: '≠ changed', same: '' } as const;

/** This revision beside another of the same product, or beside another product. */
export function CompareView({ definition, revision }: { definition: Definition; revision: Revision }) {
  const [search, setSearch] = useSearchParams();
  const otherId = Number(search.get('other')) || null;
  const set = (values: Record<string, string | null>) =>
    setSearch((before) => {
      const after = new URLSearchParams(before);
      for (const [name, value] of Object.entries(values))
        if (value === null) after.delete(name);
        else after.set(name, value);
      return after;
    });
  const others = definition.revisions.filter((known) => known.id !== revision.id);
  const against =
    others.find((known) => known.number === Number(search.get('against'))) ??
    others.find((known) => known.number < revision.number) ??
    others[0];
  return (
    <>
      <Row $gap={12} $wrap $top={10} $bottom={12}>
        {others.length > 0 && (
          <Part $width={200}>
            <Choice
              label="Compare with revision"
              value={otherId ? '' : String(against?.number ?? '')}
              onChange={(number) => set({ against: number, other: null })}
              options={[
                ...(otherId ? [['', 'another product'] as const] : []),
                ...others.map(
                  (one) => [String(one.number), `rev ${one.number}, ${one.state.replace('-', ' ')}`] as const,
                ),
              ]}
            />
          </Part>
        )}
        <Part $width={260}>
          <ItemPicker
            label="Or with another product"
            placeholder="Its code or name"
            onPick={(item) => item.definitionId !== null && set({ other: String(item.definitionId) })}
          />
        </Part>
      </Row>
      {otherId ? (
        <OtherProduct id={otherId} definition={definition} revision={revision} />
      ) : against ? (
        <Difference definition={definition} before={against} after={revision} />
      ) : (
        <Lead>There is only one revision so far. Choose another product to compare it with.</Lead>
      )}
    </>
  );
}

function OtherProduct({ id, definition, revision }: { id: number; definition: Definition; revision: Revision }) {
  const other = useQuestion('definition', { params: { id } });
  return (
    <Answer of={other}>
      {(data) => {
        const theirs = data.revisions.find((one) => one.state === 'in-use') ?? data.revisions[0];
        return theirs ? (
          <Difference definition={definition} before={theirs} after={revision} beforeName={data.item.name} />
        ) : null;
      }}
    </Answer>
  );
}

function Difference({
  definition,
  before,
  after,
  beforeName,
}: {
  definition: Definition;
  before: Revision;
  after: Revision;
  beforeName?: string;
}) {
  const format = useFormat();
  const rates = useQuestion('rates', {});
  const stores = useQuestion('stores', {}).data ?? [];
  const [all, setAll] = useState(false);
  const binName = (id: number) =>
    stores.flatMap((store) => store.bins).find((bin) => bin.id === id)?.code ?? String(id);
  const names = [
    beforeName ?? `rev ${before.number}`,
    beforeName ? definition.item.name : `rev ${after.number}`,
  ] as const;
  return (
    <Answer of={rates}>
      {(known) => {
        const result = difference(before, after, definition.item.decimals, known, binName);
        const changes = result.lines.filter((line) => line.change !== 'same');
        const cost = (amount: number) => format.number(formatDecimal(amount), 3, 3);
        const moved = result.costAfter - result.costBefore;
        const same = result.lines.length - changes.length;
        return (
          <>
            <h2>
              {changes.length === 0
                ? 'No differences.'
                : `${count(changes.length, 'line')} differ${changes.length === 1 ? 's' : ''}; a batch costs ${moved === 0 ? 'the same' : `${cost(Math.abs(moved))} ${moved > 0 ? 'more' : 'less'}`}.`}
            </h2>
            {before.outputQuantity !== after.outputQuantity && (
              <Lead>
                One batch makes {before.outputQuantity} in {names[0]} and {after.outputQuantity} in {names[1]}.
              </Lead>
            )}
            <Grid $top={8}>
              <thead>
                <tr>
                  <th>Change</th>
                  <th>Line</th>
                  <th>{names[0]}</th>
                  <th>{names[1]}</th>
                  <th className="num">Cost before</th>
                  <th className="num">Cost after</th>
                </tr>
              </thead>
              <tbody>
                {(all ? result.lines : changes).map((change, index) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: lines of a comparison never change places
                  <ChangeRow key={index} change={change} cost={cost} />
                ))}
              </tbody>
              <tfoot>
                <tr>
                  <td colSpan={4}>
                    {same > 0 && (
                      <Button look="ghost" onPress={() => setAll(!all)}>
                        {all
                          ? 'Show only what differs'
                          : `Show ${count(same, 'line')} that stay${same === 1 ? 's' : ''} the same`}
                      </Button>
                    )}
                  </td>
                  <td className="num">
                    <b>{cost(result.costBefore)}</b>
                  </td>
                  <td className="num">
                    <b>{cost(result.costAfter)}</b>
                  </td>
                </tr>
              </tfoot>
            </Grid>
            {!beforeName && <MoveBuilds definition={definition} before={before} after={after} />}
          </>
        );
      }}
    </Answer>
  );
}

function ChangeRow({ change, cost }: { change: LineChange<ShownLine>; cost: (amount: number) => string }) {
  const shown = change.after ?? change.before;
  const facts = change.change === 'changed' ? change.facts : ['amount'];
  return (
    <tr>
      <td>{change.change !== 'same' && <Sign $change={change.change}>{signs[change.change]}</Sign>}</td>
      <td>
        <Cell>
          {shown.code && <Tile code={shown.code} size={26} />}
          <span>
            <b>{shown.title}</b>
            {shown.code && (
              <>
                <br />
                <Faint>{shown.code}</Faint>
              </>
            )}
          </span>
        </Cell>
      </td>
      <td>{change.before && <Facts line={change.before} names={facts} />}</td>
      <td>{change.after && <Facts line={change.after} names={facts} />}</td>
      <td className="num">{change.before ? cost(change.before.cost) : '–'}</td>
      <td className="num">{change.after ? cost(change.after.cost) : '–'}</td>
    </tr>
  );
}

function Facts({ line, names }: { line: ShownLine; names: readonly string[] }) {
  const unit = line.line.kind === 'part' ? line.line.item.unit : line.line.kind === 'labour' ? 'min' : '';
  const said = names.flatMap((name) => {
    if (!(name in line.facts)) return [];
    const value = line.facts[name];
    const text = value === null ? 'none' : value === true ? 'yes' : value === false ? 'no' : String(value);
    return [name === 'amount' ? `${text} ${unit === 'each' ? '' : unit}`.trim() : `${factNames[name]} ${text}`];
  });
  return <>{said.join(', ')}</>;
}

/** Planned builds that took the other revision move here, after the difference was seen. */
function MoveBuilds({ definition, before, after }: { definition: Definition; before: Revision; after: Revision }) {
  const notify = useNotify();
  const builds = definition.openBuilds.filter((build) => build.revisionId === before.id);
  const movable = builds.filter((build) => build.state === 'planned');
  const move = useCommand('moveBuilds', () =>
    notify({ text: `${count(movable.length, 'build')} took revision ${after.number}.` }),
  );
  if (after.state !== 'in-use' || builds.length === 0) return null;
  const keeping = builds.length - movable.length;
  return (
    <>
      <H2 $top={18}>Builds that took revision {before.number}</H2>
      <Lead>
        {movable.length > 0 && <>Planned: {movable.map((build) => build.number).join(', ')}. </>}
        {keeping > 0 && `${count(keeping, 'build')} on the bench ${keeping === 1 ? 'keeps' : 'keep'} what was taken.`}
      </Lead>
      <ProblemBox error={move.error} />
      {movable.length > 0 && (
        <Row $top={10}>
          <Button
            look="go"
            busy={move.isPending}
            onPress={() =>
              move.mutate({ params: { id: definition.id }, body: { buildIds: movable.map((build) => build.id) } })
            }
          >
            Move {count(movable.length, 'planned build')} to revision {after.number}
          </Button>
        </Row>
      )}
    </>
  );
}
