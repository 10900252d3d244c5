import type { Item, Replacement } from '@yosegi/contract';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { AnswerBody, AnswerPane, Ask, AskAnswer, Cell, Foot, Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Stack } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Muted } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';

/** A name at the head of a column of numbers goes on in the next line. */
const Name = styled.th`&&.num { white-space: normal; min-width: 90px; }`;

/** One part replaced by another in many definitions at once, as drafts, after seeing what it does to each. */
export function ReplacePage() {
  const [part, setPart] = useAddress('part');
  const [by, setBy] = useAddress('by');
  const [ratio, setRatio] = useAddress('ratio', '1');
  const partItem = useQuestion('item', { params: { id: Number(part) } }, { enabled: part !== '' }).data;
  const byItem = useQuestion('item', { params: { id: Number(by) } }, { enabled: by !== '' }).data;
  const ready = part !== '' && by !== '' && ratio.trim() !== '';
  const preview = useQuestion(
    'replacements',
    { query: { partId: Number(part), byId: Number(by), ratio } },
    { enabled: ready, keep: true },
  );
  return (
    <AskAnswer>
      <Ask>
        <h1>Replace a part</h1>
        <Lead>In every product that uses it. Nothing changes until each draft is put in use.</Lead>
        <Stack $gap={12} $top={16}>
          <ItemPicker label="This part" chosen={partItem?.name ?? ''} onPick={(item) => setPart(String(item.id))} />
          <ItemPicker
            label="with this one"
            chosen={byItem?.name ?? ''}
            canAdd
            autoFocus={part !== '' && by === ''}
            onPick={(item) => setBy(String(item.id))}
            error={problemAt(preview.error, 'byId')}
          />
          <Field
            label={byItem && partItem ? `${byItem.unit} of it for 1 ${partItem.unit}` : 'Quantity per unit'}
            numeric
            value={ratio}
            onChange={setRatio}
            error={problemAt(preview.error, 'ratio')}
          />
        </Stack>
      </Ask>
      {ready && partItem && byItem ? (
        problemOf(preview.error)?.field ? (
          <AnswerPane />
        ) : (
          <Answer of={preview}>
            {(rows) => <Preview key={`${part}.${by}`} rows={rows} part={partItem} by={byItem} ratio={ratio} />}
          </Answer>
        )
      ) : (
        <AnswerPane>
          <EmptyState title="Replace which part, and with what?">
            Choose both on the left. You see every product with the part, the new quantity, and what that does to its
            cost.
          </EmptyState>
        </AnswerPane>
      )}
    </AskAnswer>
  );
}

function Preview({ rows, part, by, ratio }: { rows: readonly Replacement[]; part: Item; by: Item; ratio: string }) {
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const possible = rows.filter((row) => row.problem === null);
  const chosen = possible.filter((row) => !left.has(row.definitionId));
  const replace = useCommand('replacePart', ({ drafts }) => {
    notify({ text: `${count(drafts.length, 'draft')} with ${by.name} started. Put each in use when it is right.` });
    void go(drafts.length === 1 ? `/define/${drafts[0]?.definitionId}?rev=${drafts[0]?.revision}` : '/define');
  });
  if (rows.length === 0)
    return (
      <AnswerPane>
        <EmptyState title={`No product in use contains ${part.name}`}>Nothing to replace.</EmptyState>
      </AnswerPane>
    );
  const toggle = (id: number) => {
    const next = new Set(left);
    if (!next.delete(id)) next.add(id);
    setLeft(next);
  };
  return (
    <AnswerPane>
      <AnswerBody>
        <h2>
          {count(rows.length, 'product')} in use {rows.length === 1 ? 'lists' : 'list'} {part.name}.
        </h2>
        <Grid>
          <thead>
            <tr>
              <th aria-label="Chosen" />
              <th>Product</th>
              <Name className="num">{part.name}</Name>
              <Name className="num">{by.name}</Name>
              <th className="num">Unit cost</th>
              <th className="num">then</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.definitionId} {...(row.problem ? { 'data-quiet': true } : {})}>
                <td>
                  <Tick
                    label={`Replace it in ${row.name}`}
                    isDisabled={row.problem !== null}
                    isOn={row.problem === null && !left.has(row.definitionId)}
                    onChange={() => toggle(row.definitionId)}
                  />
                </td>
                <td>
                  <Cell>
                    <Tile code={row.code} size={28} />
                    <span>
                      <Link to={`/define/${row.definitionId}`}>{row.name}</Link>
                      <br />
                      <Faint>{row.problem ?? `${row.code} · rev ${row.revision}`}</Faint>
                    </span>
                  </Cell>
                </td>
                <td className="num">{format.quantity(row.quantityBefore, part.unit, part.decimals)}</td>
                <td className="num">{format.quantity(row.quantityAfter, by.unit, by.decimals)}</td>
                <td className="num">{format.costOrDash(row.costBefore)}</td>
                <td className="num">
                  <b>{format.costOrDash(row.costAfter)}</b>
                </td>
              </tr>
            ))}
          </tbody>
        </Grid>
        <ProblemBox error={replace.error} />
      </AnswerBody>
      <Foot>
        <Button
          look="go"
          busy={replace.isPending}
          isDisabled={chosen.length === 0}
          onPress={() =>
            replace.mutate({
              body: { partId: part.id, byId: by.id, ratio, definitionIds: chosen.map((row) => row.definitionId) },
            })
          }
        >
          Start {count(chosen.length, 'draft')} with {by.name}
        </Button>
        <Muted>Revisions in use stay as they are until a draft is put in use.</Muted>
      </Foot>
    </AnswerPane>
  );
}
