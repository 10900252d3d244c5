import type { BuildDetail, LastUse } from '@yosegi/contract';
import type { FinishCost } from '@yosegi/core/builds';
import { formatDecimal } from '@yosegi/core/number';
import { useNavigate } from 'react-router';
import { useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { Muted, Row } from '../ui/text.ts';
import { type TypedUse, withUse } from './typedUse.ts';
import { usualOf } from './UseGrid.tsx';

interface Props {
  readonly build: BuildDetail;
  readonly cost: FinishCost;
  readonly past: ReadonlyMap<number, LastUse>;
  readonly typed: TypedUse;
  readonly onChange: (typed: TypedUse) => void;
}

/** How it went the last times: taken over in one step, and where the plan is always off, the plan put right. */
export function Usual({ build, cost, past, typed, onChange }: Props) {
  const format = useFormat();
  const go = useNavigate();
  const mayDefine = useCan('define');
  const correct = useCommand(
    'correctDefinition',
    ({ definitionId, number }) => void go(`/define/${definitionId}?rev=${number}`),
  );
  const lines = cost.lines.flatMap((use) => {
    const line = build.lines.find(({ id }) => id === use.lineId);
    const usual = line && usualOf(line, use.planned, past.get(use.lineId));
    return line && usual ? [{ line, usual }] : [];
  });
  const drifted = build.lines.filter(({ id }) => past.get(id)?.isDrifted);
  if (lines.length === 0 && drifted.length === 0) return null;
  const asUsual = () =>
    onChange(lines.reduce((all, { line, usual }) => withUse(all, 'actuals', line.id, formatDecimal(usual)), typed));
  return (
    <Part $top={10} $bottom={6}>
      <Row $gap={10} $wrap>
        {lines.length > 0 && <Button onPress={asUsual}>Use last time’s</Button>}
        {drifted.length > 0 && (
          <>
            <Muted>
              {drifted.map((line) => driftWords(line, past.get(line.id), format.number.bind(format))).join(', ')}.
            </Muted>
            {mayDefine && build.definition && (
              <Button
                look="ghost"
                busy={correct.isPending}
                onPress={() => correct.mutate({ params: { id: build.id }, body: {} })}
              >
                Correct the bill of materials
              </Button>
            )}
          </>
        )}
      </Row>
      <ProblemBox
        error={correct.error}
        ways={build.definition && <LinkButton to={`/define/${build.definition.id}`}>Open the draft</LinkButton>}
      />
    </Part>
  );
}

/** "Wick always takes 12 % more than planned". */
function driftWords(
  line: BuildDetail['lines'][number],
  past: LastUse | undefined,
  number: (text: string) => string,
): string {
  const [planned, actual] = [Number(past?.planned ?? 1), Number(past?.actual ?? 1)];
  const off = Math.round((Math.abs(actual - planned) / planned) * 100);
  const name = line.item?.name ?? (line.text || 'labour');
  return `${name} always takes ${number(String(off))}% ${actual > planned ? 'more' : 'less'} than planned`;
}
