import type { ItemDetail } from '@yosegi/contract';
import { marginOf } from '@yosegi/core/definitions';
import { formatDecimal, type Money, readExact, readForText } from '@yosegi/core/number';
import { useDeferredValue } from 'react';
import { Link } from 'react-router';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { H2, Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { costNames } from './costNames.ts';

/** What another price of a part does to every product that uses it, before anything is saved. */
export function CostEffect({ item }: { item: ItemDetail }) {
  const format = useFormat();
  const notify = useNotify();
  const mayValue = useCan('value');
  const screen = useTypedScreen(`cost-effect.${item.id}`);
  const [typed, setTyped] = useTyped(screen, 'cost', item.standardCost ?? item.averageCost);
  const asked = useDeferredValue(typed.trim());
  const effect = useQuestion(
    'costEffect',
    { params: { id: item.id }, query: { cost: asked } },
    { enabled: asked !== '', keep: true },
  );
  const save = useCommand(
    'setPrices',
    () => notify({ text: `${item.name} has a standard cost of ${typed} now.` }),
    screen.forget,
  );
  const rows = effect.data ?? [];
  const below = rows.filter(
    (row) => row.sellPrice !== null && row.after !== null && readForText(row.after) > readForText(row.sellPrice),
  );
  const margin = (price: string | null, cost: string | null) => {
    const share =
      price === null || cost === null ? null : marginOf(readExact(price) as Money, readExact(cost) as Money);
    if (share === null) return '–';
    const text = format.percent(formatDecimal(share), 1, 1);
    return share < 0 ? <Late>{text}</Late> : text;
  };
  return (
    <>
      <H2 $top={22}>
        {rows.length === 0
          ? 'No product in use contains it.'
          : `If the cost changed: ${count(rows.length, 'product')}${below.length > 0 ? `, ${below.length} below cost` : ''}.`}
      </H2>
      <Row $gap={10} $top={8} $bottom={8} $end>
        <Part $width={150}>
          <Field
            label={item.unit === 'each' ? 'Unit cost' : `Unit cost per ${item.unit}`}
            numeric
            value={typed}
            onChange={setTyped}
            error={problemAt(effect.error, 'cost')}
          />
        </Part>
        <Button
          busy={save.isPending}
          isDisabled={!mayValue || typed.trim() === '' || typed === item.standardCost || effect.isError}
          onPress={() =>
            save.mutate({ params: { id: item.id }, body: { standardCost: typed.trim(), version: item.version } })
          }
        >
          Save as standard cost
        </Button>
        <Lead>
          {costNames[item.costFrom]} now {format.unitCost(item.averageCost)}. Receipts set the average and the latest
          cost.
        </Lead>
      </Row>
      {problemOf(save.error) && <ProblemBox error={save.error} />}
      {rows.length > 0 && (
        <Grid>
          <thead>
            <tr>
              <th>Product</th>
              <th className="num">Unit cost</th>
              <th className="num">then</th>
              <th className="num">Margin</th>
              <th className="num">then</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.definitionId}>
                <td>
                  <Cell>
                    <Tile code={row.code} size={26} />
                    <span>
                      <Link to={`/define/${row.definitionId}`}>{row.name}</Link> <Faint>{row.code}</Faint>
                    </span>
                  </Cell>
                </td>
                <td className="num">{format.costOrDash(row.before)}</td>
                <td className="num">
                  <b>{format.costOrDash(row.after)}</b>
                </td>
                <td className="num">{margin(row.sellPrice, row.before)}</td>
                <td className="num">{margin(row.sellPrice, row.after)}</td>
              </tr>
            ))}
          </tbody>
        </Grid>
      )}
    </>
  );
}
