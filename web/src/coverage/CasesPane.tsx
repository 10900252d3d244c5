import type { CoverItem } from '@yosegi/contract';
import type { Change } from '@yosegi/core/coverage';
import { byDay } from '@yosegi/core/demand';
import { formatDecimal, positive } from '@yosegi/core/number';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { type Format, useFormat } from '../ui/format.ts';
import { Ask } from '../ui/layout.ts';
import { readTyped } from '../ui/measuring.ts';
import { H2, Para, Stack } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Row } from '../ui/text.ts';
import type { CaseAnswer, TimeAnswer } from '../workers/timeAnswer.ts';
import { MOST_CASES } from './cases.ts';
import type { CaseDeeds } from './TimePage.tsx';
import type { Names } from './useNames.ts';

const Card = styled.button<{ $isOn: boolean }>`
  display: block; width: 100%; text-align: left; font: inherit; color: var(--ink); background: var(--sheet); border: 1px solid var(--line); cursor: pointer; padding: 8px 12px; min-height: 44px;
  border-left: 5px solid ${({ $isOn }) => ($isOn ? 'var(--honey)' : 'var(--line)')}; b { display: block; }
`;

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
          <Link to={`/cover/scarce?items=${item.id}`}>Who gets what there is?</Link>
        </Para>
      )}
      <H2 $top={16} $bottom={8}>
        What if…
      </H2>
      <Stack $gap={8}>
        <Card type="button" $isOn={at === 0} aria-pressed={at === 0} onClick={() => deeds.select(0)}>
          <b>As it stands</b>
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
                ? 'Another case'
                : changes.map((change) => wordsOf(change, names, items, format)).join('; ')}
            </b>
            {texts[index] !== '' && changes.length === 0 ? (
              <Late>This case cannot be read any more.</Late>
            ) : (
              <Outcome answer={answer?.cases[index + 1]} />
            )}
          </Card>
        ))}
        {cases.length < MOST_CASES && (
          <div>
            <Button onPress={() => deeds.another()}>Another case</Button>
          </div>
        )}
      </Stack>
      {at > 0 && (
        <Editor
          item={item}
          changes={cases[at - 1] ?? []}
          at={at}
          items={items}
          names={names}
          coming={coming}
          deeds={deeds}
        />
      )}
      <Para $top={14}>
        <Faint>Nothing here touches your stock until you take it. Drag what comes to another day, or type it.</Faint>
      </Para>
    </Ask>
  );
}

function Outcome({ answer }: { answer: CaseAnswer | undefined }) {
  const format = useFormat();
  if (!answer) return <Faint>…</Faint>;
  const { wholeOn, outcome } = answer;
  const whole = wholeOn === null ? 'never whole' : wholeOn === '' ? 'whole now' : `whole on ${format.day(wholeOn)}`;
  const later = outcome.moved.filter(({ before, wholeOn: after }) => byDay(before, after) < 0).length;
  const sooner = outcome.moved.length - later;
  const late = outcome.late.length;
  return (
    <small>
      {[
        whole,
        late === 0 ? 'nobody late' : `${late} late in all`,
        later > 0 && `${later} later`,
        sooner > 0 && `${sooner} sooner`,
      ]
        .filter(Boolean)
        .join(' · ')}
    </small>
  );
}

/** A change as one says it. */
export function wordsOf(change: Change, names: Names, items: ReadonlyMap<number, CoverItem>, format: Format): string {
  const amount = (itemId: number, scaled: number) => {
    const item = items.get(itemId);
    return item ? format.quantity(formatDecimal(scaled), item.unit, item.decimals) : '';
  };
  switch (change.what) {
    case 'day': {
      const { number } = names.supply(change.kind, change.id);
      return change.on ? `${number} on ${format.day(change.on)}` : `${number} on no known day`;
    }
    case 'gone':
      return `${names.supply(change.kind, change.id).number} never comes`;
    case 'missing':
      return `${amount(change.itemId, change.quantity)} turn out missing`;
    case 'instead':
      return `${items.get(change.other)?.name ?? 'an alternate'} for ${amount(change.itemId, change.quantity)}`;
    case 'first':
      return `${names.source(change.source)?.number ?? '…'} goes first`;
    case 'last':
      return `${names.source(change.source)?.number ?? '…'} waits for the others`;
  }
}

interface EditorProps extends Pick<Props, 'item' | 'items' | 'names' | 'deeds' | 'at'> {
  readonly changes: readonly Change[];
  readonly coming: readonly { readonly kind: 'purchase' | 'build'; readonly id: number }[];
}

/** The changes of the case that is looked at, and what else could be otherwise. */
function Editor({ item, items, changes, at, names, coming, deeds }: EditorProps) {
  const format = useFormat();
  const [missing, setMissing] = useState('');
  const [wrong, setWrong] = useState<string | undefined>();
  const addMissing = () => {
    try {
      deeds.change({ what: 'missing', itemId: item.id, quantity: positive(readTyped(missing, item)) });
      setMissing('');
      setWrong(undefined);
    } catch {
      setWrong('Type how much is missing, like 5.');
    }
  };
  const supplies = coming.filter(
    (one, index) => coming.findIndex((other) => other.kind === one.kind && other.id === one.id) === index,
  );
  return (
    <Stack $gap={8} $top={12} role="group" aria-label="This case">
      {changes.map((change, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a change is its place in the case
        <Row key={index} $gap={6}>
          <span>{wordsOf(change, names, items, format)}</span>
          <Button
            look="ghost"
            aria-label={`Take back: ${wordsOf(change, names, items, format)}`}
            onPress={() => deeds.takeBack(index)}
          >
            ✕
          </Button>
        </Row>
      ))}
      {supplies.length > 0 && (
        <Choice
          label="Something never comes"
          value=""
          onChange={(key) => {
            const [kind, id] = key.split('.');
            if (kind === 'purchase' || kind === 'build') deeds.change({ what: 'gone', kind, id: Number(id) });
          }}
          options={[
            ['', 'choose'],
            ...supplies.map(({ kind, id }) => [`${kind}.${id}`, names.supply(kind, id).number] as const),
          ]}
        />
      )}
      <Row $gap={6} $end>
        <Field
          label="Some turns out missing"
          numeric
          value={missing}
          suffix={item.unit}
          onChange={setMissing}
          error={wrong}
          onKeyDown={(event) => event.key === 'Enter' && addMissing()}
        />
        <Button isDisabled={missing.trim() === ''} onPress={addMissing}>
          Add
        </Button>
      </Row>
      <div>
        <Button look="ghost" onPress={() => deeds.forget(at)}>
          Forget this case
        </Button>
      </div>
    </Stack>
  );
}
