import type { CoverItem, Supplier } from '@yosegi/contract';
import type { Change } from '@yosegi/core/coverage';
import { byDay } from '@yosegi/core/demand';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { Ask } from '../ui/layout.ts';
import { H2, Para, Stack } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Row } from '../ui/text.ts';
import type { CaseAnswer, TimeAnswer } from '../workers/timeAnswer.ts';
import { CaseEditor } from './CaseEditor.tsx';
import { MOST_CASES } from './cases.ts';
import { wordsOf } from './caseWords.ts';
import type { CaseDeeds } from './TimePage.tsx';
import type { Names } from './useNames.ts';

const Card = styled.button<{ $isOn: boolean }>`
  display: block; width: 100%; text-align: left; font: inherit; color: var(--ink); background: var(--sheet); border: 1px solid var(--line); cursor: pointer; padding: 8px 12px; min-height: 44px;
  border-left: 5px solid ${({ $isOn }) => ($isOn ? 'var(--honey)' : 'var(--line)')}; b { display: block; }
`;

const NONE: readonly Supplier[] = [];

interface Props {
  readonly item: CoverItem;
  readonly items: ReadonlyMap<number, CoverItem>;
  readonly answer: TimeAnswer | null;
  readonly texts: readonly string[];
  readonly cases: readonly (readonly Change[])[];
  readonly at: number;
  readonly names: Names;
  readonly amount: (scaled: number) => string;
  readonly deeds: CaseDeeds;
}

/** What is, and up to three cases beside it; the one that is looked at is changed here. */
export function CasesPane({ item, items, answer, texts, cases, at, names, amount, deeds }: Props) {
  const format = useFormat();
  const suppliers = useQuestion('suppliers', {}).data ?? NONE;
  const [is] = answer?.cases ?? [];
  const coming = is ? [...is.time.days.flatMap(({ brings }) => brings), ...is.time.undated] : [];
  const total = (all: readonly { quantity: number }[]) => all.reduce((sum, { quantity }) => sum + quantity, 0);
  const taken = is ? total(is.time.days.flatMap(({ takes }) => takes)) : 0;
  return (
    <Ask aria-label="What if">
      <Row $gap={10}>
        <Tile code={item.code} size={40} />
        <div>
          <h2>{item.name}</h2>
          <Link to={`/stock/items/${item.id}`}>{item.code}</Link>
        </div>
      </Row>
      {is && (
        <Para $top={8}>
          <Faint>
            {amount(is.time.shelf)} on the shelves · {amount(taken)} promised · {amount(total(coming))} coming
          </Faint>
        </Para>
      )}
      {is && is.short.length > 0 && (
        <Para $top={6}>
          <Link to={`/cover/scarce?items=${item.id}`}>Who gets the stock?</Link>
        </Para>
      )}
      <H2 $top={16} $bottom={8}>
        What if…
      </H2>
      <Stack $gap={8}>
        <Card type="button" $isOn={at === 0} aria-pressed={at === 0} onClick={() => deeds.select(0)}>
          <b>As it is now</b>
          <Outcome answer={is} />
        </Card>
        {cases.map((changes, index) => (
          <Card
            // biome-ignore lint/suspicious/noArrayIndexKey: a case is its place in the address
            key={index}
            type="button"
            $isOn={at === index + 1}
            aria-pressed={at === index + 1}
            onClick={() => deeds.select(index + 1)}
          >
            <b>
              {changes.length === 0
                ? 'Add another case'
                : changes.map((change) => wordsOf(change, { names, items, suppliers, format })).join('; ')}
            </b>
            {texts[index] !== '' && changes.length === 0 ? (
              <Late>This case can’t be opened any more.</Late>
            ) : (
              <Outcome answer={answer?.cases[index + 1]} />
            )}
          </Card>
        ))}
        {cases.length < MOST_CASES && (
          <div>
            <Button onPress={() => deeds.another()}>Add another case</Button>
          </div>
        )}
      </Stack>
      {at > 0 && (
        <CaseEditor
          item={item}
          changes={cases[at - 1] ?? []}
          items={items}
          names={names}
          suppliers={suppliers}
          offers={{
            coming,
            takers: is?.time.days.flatMap(({ takes }) => takes.map(({ source }) => source)) ?? [],
            alternates: answer?.alternates ?? [],
            isMade: answer?.isMade ?? false,
          }}
          onChange={deeds.change}
          onTakeBack={deeds.takeBack}
          onForget={() => deeds.forget(at)}
        />
      )}
      <Para $top={14}>
        <Faint>
          Nothing here changes your stock until you apply it. Drag a delivery to another day, or enter its date.
        </Faint>
      </Para>
    </Ask>
  );
}

function Outcome({ answer }: { answer: CaseAnswer | undefined }) {
  const format = useFormat();
  if (!answer) return <Faint>…</Faint>;
  const { completeOn, outcome } = answer;
  const whole =
    completeOn === null
      ? 'never complete'
      : completeOn === ''
        ? 'complete now'
        : `complete on ${format.day(completeOn)}`;
  const later = outcome.moved.filter(({ before, completeOn: after }) => byDay(before, after) < 0).length;
  const sooner = outcome.moved.length - later;
  const late = outcome.late.length;
  return (
    <small>
      {[
        whole,
        late === 0 ? 'none late' : `${late} late in all`,
        later > 0 && `${later} later`,
        sooner > 0 && `${sooner} sooner`,
      ]
        .filter(Boolean)
        .join(' · ')}
    </small>
  );
}
