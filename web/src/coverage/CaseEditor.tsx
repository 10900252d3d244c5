import type { CoverItem, Supplier } from '@yosegi/contract';
import type { Change } from '@yosegi/core/coverage';
import { type Source, sourceKey } from '@yosegi/core/demand';
import { positive, type Quantity } from '@yosegi/core/number';
import { type ReactNode, useState } from 'react';
import { z } from 'zod';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { readTyped } from '../ui/measuring.ts';
import { Stack } from '../ui/space.ts';
import { Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { daysOf, MOST_DAYS } from './cases.ts';
import { wordsOf } from './caseWords.ts';
import type { Names } from './useNames.ts';

/** What could be otherwise about an item. */
export interface Offers {
  readonly coming: readonly { readonly kind: 'purchase' | 'build'; readonly id: number }[];
  readonly takers: readonly Source[];
  /** What may stand in for it. */
  readonly alternates: readonly number[];
  readonly isMade: boolean;
}

interface Props {
  readonly item: CoverItem;
  readonly items: ReadonlyMap<number, CoverItem>;
  readonly changes: readonly Change[];
  readonly names: Names;
  readonly suppliers: readonly Supplier[];
  readonly offers: Offers;
  readonly onChange: (change: Change) => void;
  readonly onTakeBack: (index: number) => void;
  readonly onForget?: () => void;
}

const kinds = {
  missing: 'Some is missing',
  gone: 'Something never comes',
  late: 'A supplier is late',
  instead: 'An alternate is used',
  turn: 'Priority changes',
  build: 'More is built',
} as const;
type Kind = keyof typeof kinds;
const KINDS = z.enum(Object.keys(kinds) as Kind[]);

/** The changes of a case, and what else could be otherwise. */
export function CaseEditor(props: Props) {
  const { changes, names, items, suppliers, offers, onTakeBack, onForget } = props;
  const format = useFormat();
  const screen = useTypedScreen('what-if');
  const [kind, setKind] = useTyped(screen, 'kind', 'missing', KINDS);
  const words = (change: Change) => wordsOf(change, { names, items, suppliers, format });
  const possible = (Object.keys(kinds) as Kind[]).filter(
    (one) =>
      (one !== 'gone' || offers.coming.length > 0) &&
      (one !== 'late' || suppliers.length > 0) &&
      (one !== 'instead' || offers.alternates.length > 0) &&
      (one !== 'turn' || offers.takers.length > 0) &&
      (one !== 'build' || offers.isMade),
  );
  return (
    <Stack $gap={8} $top={12} role="group" aria-label="This case">
      {changes.map((change, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a change is its place in the case
        <Row key={index} $gap={6}>
          <span>{words(change)}</span>
          <Button look="ghost" aria-label={`Remove: ${words(change)}`} onPress={() => onTakeBack(index)}>
            ✕
          </Button>
        </Row>
      ))}
      <Choice
        label="Add a change"
        value={possible.includes(kind) ? kind : 'missing'}
        onChange={(next) => setKind(next as Kind)}
        options={possible.map((one) => [one, kinds[one]] as const)}
      />
      {kind === 'gone' && offers.coming.length > 0 ? (
        <Gone {...props} />
      ) : kind === 'late' ? (
        <LateSupplier {...props} />
      ) : kind === 'turn' && offers.takers.length > 0 ? (
        <Turn {...props} />
      ) : kind === 'instead' && offers.alternates.length > 0 ? (
        <Instead {...props} />
      ) : kind === 'build' && offers.isMade ? (
        <More {...props} />
      ) : (
        <Amount
          item={props.item}
          label="Quantity missing"
          onAdd={(quantity) => props.onChange({ what: 'missing', itemId: props.item.id, quantity })}
        />
      )}
      {onForget && (
        <div>
          <Button look="ghost" onPress={onForget}>
            Delete this case
          </Button>
        </div>
      )}
    </Stack>
  );
}

const distinct = <T,>(all: readonly T[], keyOf: (one: T) => string): T[] => [
  ...new Map(all.map((one) => [keyOf(one), one])).values(),
];

function Gone({ offers, names, onChange }: Props) {
  return (
    <Choice
      label="What never comes"
      value=""
      onChange={(key) => {
        const [kind, id] = key.split('.');
        if (kind === 'purchase' || kind === 'build') onChange({ what: 'gone', kind, id: Number(id) });
      }}
      options={[
        ['', 'choose'],
        ...distinct(offers.coming, ({ kind, id }) => `${kind}.${id}`).map(
          ({ kind, id }) => [`${kind}.${id}`, names.supply(kind, id).number] as const,
        ),
      ]}
    />
  );
}

function LateSupplier({ suppliers, onChange }: Props) {
  const [supplier, setSupplier] = useState('');
  const screen = useTypedScreen('what-if.late');
  const [typed, setTyped] = useTyped(screen, 'days', '');
  const [wrong, setWrong] = useState<string | undefined>();
  const submit = () => {
    const days = daysOf(typed.trim());
    if (typed.trim() !== '' && days === 0)
      return setWrong(`Enter days from 1 to ${MOST_DAYS}, or leave this empty if nobody knows.`);
    setWrong(undefined);
    screen.forget();
    onChange({ what: 'late', supplierId: Number(supplier), days: typed.trim() === '' ? null : days });
  };
  return (
    <>
      <Choice
        label="Which supplier"
        value={supplier}
        onChange={setSupplier}
        options={[['', 'choose'], ...suppliers.map(({ id, name }) => [String(id), name] as const)]}
      />
      <Adding isOff={supplier === ''} onAdd={submit}>
        <Field label="Days late" value={typed} onChange={setTyped} error={wrong} onKeyDown={onEnter(submit)} />
      </Adding>
    </>
  );
}

function Turn({ offers, names, onChange }: Props) {
  const takers = distinct(offers.takers, sourceKey).filter(({ kind }) => kind === 'order' || kind === 'build');
  const [who, setWho] = useState('');
  const source = takers.find((one) => sourceKey(one) === who);
  return (
    <>
      <Choice
        label="Order or build"
        value={who}
        onChange={setWho}
        options={[
          ['', 'choose'],
          ...takers.map((one) => {
            const name = names.source(one);
            return [sourceKey(one), `${name?.number ?? '…'} ${name?.who ?? ''}`] as const;
          }),
        ]}
      />
      <Row $gap={6}>
        <Button isDisabled={!source} onPress={() => source && onChange({ what: 'first', source })}>
          Put first
        </Button>
        <Button isDisabled={!source} onPress={() => source && onChange({ what: 'last', source })}>
          Put last
        </Button>
      </Row>
    </>
  );
}

function Instead({ item, items, offers, onChange }: Props) {
  const [other, setOther] = useState(String(offers.alternates[0] ?? ''));
  return (
    <>
      <Choice
        label="Which alternate"
        value={other}
        onChange={setOther}
        options={offers.alternates.map((id) => [String(id), items.get(id)?.name ?? '…'] as const)}
      />
      <Amount
        item={item}
        label={`For how much of ${item.name}`}
        onAdd={(quantity) => onChange({ what: 'instead', itemId: item.id, other: Number(other), quantity })}
      />
    </>
  );
}

function More({ item, onChange }: Props) {
  const screen = useTypedScreen(`what-if.more.${item.id}`);
  const [on, setOn] = useTyped(screen, 'on', '');
  return (
    <>
      <DayField label="Wanted by" value={on} onChange={setOn} />
      <Amount
        item={item}
        label="Extra quantity"
        onAdd={(quantity) => onChange({ what: 'build', itemId: item.id, quantity, on: on || null })}
      />
    </>
  );
}

interface AmountProps {
  readonly item: CoverItem;
  readonly label: string;
  readonly onAdd: (quantity: Quantity) => void;
}

function Amount({ item, label, onAdd }: AmountProps) {
  const screen = useTypedScreen(`what-if.${item.id}`);
  const [typed, setTyped] = useTyped(screen, label, '');
  const [wrong, setWrong] = useState<string | undefined>();
  const submit = () => {
    try {
      onAdd(positive(readTyped(typed, item)) as Quantity);
      setTyped('');
      screen.forget();
      setWrong(undefined);
    } catch {
      setWrong('Enter a quantity, like 5.');
    }
  };
  return (
    <Adding isOff={typed.trim() === ''} onAdd={submit}>
      <Field
        label={label}
        numeric
        value={typed}
        suffix={item.unit}
        onChange={setTyped}
        error={wrong}
        onKeyDown={onEnter(submit)}
      />
    </Adding>
  );
}

function Adding({ isOff, onAdd, children }: { isOff: boolean; onAdd: () => void; children: ReactNode }) {
  return (
    <Row $gap={6} $end>
      {children}
      <Button isDisabled={isOff} onPress={onAdd}>
        Add
      </Button>
    </Row>
  );
}

const onEnter = (submit: () => void) => (event: { key: string }) => event.key === 'Enter' && submit();
