import type { CountDetail, CountLine } from '@yosegi/contract';
import { writeSerials } from '@yosegi/core/tracking';
import { problemAt, problemOf, useCommand } from '../api/client.ts';
import { SignedQuantity } from '../lines/SignedQuantity.tsx';
import { Button } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead } from '../ui/text.ts';
import { useAtOnce } from '../ui/useAtOnce.ts';

/** What one of what was found is worth, where nobody ever said what it costs; zero is said openly. */
function FoundCost({ line, refused }: { line: CountLine; refused: unknown }) {
  const format = useFormat();
  const { text, typed, type, saved } = useAtOnce(`found-cost.${line.id}`, line.unitCost ?? '');
  const say = useCommand('countCost');
  const keep = () => {
    if (typed === null) return;
    const unitCost = text.trim() === '' ? null : text.trim();
    if (unitCost === line.unitCost) saved(typed);
    else say.mutate({ params: { id: line.id }, body: { unitCost } }, { onSuccess: () => saved(typed) });
  };
  return (
    <Field
      label={`What is one ${line.name} worth?`}
      numeric
      value={text}
      suffix={format.currencySign}
      onChange={type}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
      error={problemOf(say.error)?.detail ?? problemAt(refused, `sheet.${line.id}.unitCost`)}
    />
  );
}

/** What was counted beside what the books said then, the dearest difference first. */
export function CountDifferences({ detail, open, refused }: { detail: CountDetail; open: boolean; refused: unknown }) {
  const format = useFormat();
  const again = useCommand('countLine');
  const counted = detail.sheet.filter((line) => line.counted !== null);
  if (counted.length === 0) return <Lead>No lines counted yet.</Lead>;
  const differing = [...counted].sort((a, b) => Math.abs(Number(b.value ?? 0)) - Math.abs(Number(a.value ?? 0)));
  return (
    <>
      <ProblemBox error={again.error} />
      <Grid>
        <thead>
          <tr>
            <th>Item</th>
            <th>Bin</th>
            <th className="num">Stock at the time</th>
            <th className="num">Counted</th>
            <th className="num">Difference</th>
            <th className="num">Value</th>
            <th>Who</th>
            {open && <th aria-label="Again" />}
          </tr>
        </thead>
        <tbody>
          {differing.map((line) => (
            <tr key={line.id} {...(line.difference === '0' && line.missing.length === 0 ? { 'data-quiet': true } : {})}>
              <td>
                <Cell>
                  <Tile code={line.code} size={26} />
                  <span>
                    <b>{line.name}</b> <Faint>{line.code}</Faint>
                    {line.lot && <Faint> · lot {line.lot}</Faint>}
                    {line.missing.length > 0 && (
                      <>
                        <br />
                        <Late>not seen: {writeSerials(line.missing)}</Late>
                      </>
                    )}
                    {line.found.length > 0 && (
                      <>
                        <br />
                        <Faint>not booked here: {writeSerials(line.found)}</Faint>
                      </>
                    )}
                  </span>
                </Cell>
              </td>
              <td>
                {line.bin} <Faint>{line.store}</Faint>
              </td>
              <td className="num">{format.quantity(line.expected ?? '0', line.unit, line.decimals)}</td>
              <td className="num">{format.quantity(line.counted ?? '0', line.unit, line.decimals)}</td>
              <td className="num">
                {line.difference === '0' && line.missing.length + line.found.length === 0 ? (
                  <Chip $tone="ok">right</Chip>
                ) : (
                  <SignedQuantity quantity={line.difference ?? '0'} unit={line.unit} decimals={line.decimals} />
                )}
              </td>
              <td className="num">
                {open && line.needsCost ? (
                  <FoundCost key={line.unitCost} line={line} refused={refused} />
                ) : Number(line.value ?? 0) < 0 ? (
                  <Late>{format.money(line.value ?? '0')}</Late>
                ) : (
                  format.money(line.value ?? '0')
                )}
              </td>
              <td>{line.countedBy}</td>
              {open && (
                <td>
                  <Button
                    look="ghost"
                    aria-label={`Count ${line.name} in ${line.bin} again`}
                    onPress={() => again.mutate({ params: { id: line.id }, body: { counted: null } })}
                  >
                    Count again
                  </Button>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </Grid>
    </>
  );
}
