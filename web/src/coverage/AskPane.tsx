import type { CoverItem } from '@yosegi/contract';
import type { Aside } from '@yosegi/core/coverage';
import { useEffect, useRef, useState } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { persistently } from '../api/part.ts';
import type { Pasted } from '../lines/matchPasted.ts';
import { Button } from '../ui/Button.tsx';
import { DayField } from '../ui/DayField.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { later } from '../ui/later.tsx';
import { Ask } from '../ui/layout.ts';
import { Menu } from '../ui/Menu.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part, Stack } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Faint, Late, Row } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import type { CoverAnswer } from '../workers/coverAnswer.ts';
import { KeptQuestions } from './KeptQuestions.tsx';

import { Wish } from './Wish.tsx';
import type { ReadWant, Terms, Want } from './want.ts';

const WhatIf = later(() => import('./WhatIf.tsx'), 'WhatIf');

const Sentence = styled(AriaButton)`
  border: 0; background: none; padding: 2px 0; min-height: 24px; font: inherit; font-size: 13.5px; text-align: left; color: var(--ink-2); cursor: pointer;
  &:hover { text-decoration: underline; }
`;

export interface AskDeeds {
  readonly set: (itemId: number, quantity: string) => void;
  readonly remove: (itemId: number) => void;
  /** Asks for more products, each of its quantity; of one that is asked for already so much more. */
  readonly add: (wants: readonly Want[]) => void;
  /** Asks for these instead of what was asked. */
  readonly fill: (wants: readonly Want[], aside: Aside | null) => void;
  /** Changes what stands in the address; null takes a name out. */
  readonly change: (terms: Readonly<Record<string, string | null>>) => void;
}

interface Props {
  readonly wants: readonly Want[];
  readonly read: readonly ReadWant[];
  readonly terms: Terms;
  /** Whether it stands beside others. */
  readonly isCase: boolean;
  readonly answer: CoverAnswer | null;
  /** When each product is complete if everything is bought and begun today. */
  readonly ifBegun: ReadonlyMap<number, string | null>;
  readonly items: ReadonlyMap<number, CoverItem>;
  readonly deeds: AskDeeds;
}

/** What is asked: products and quantities, by when, from which stores, and what counts. */
export function AskPane({ wants, read, terms, isCase, answer, ifBegun, items, deeds }: Props) {
  const [pasted, setPasted] = useState<Pasted['unknown']>([]);
  const [pasteError, setPasteError] = useState<unknown>(null);
  const adder = useRef<HTMLInputElement>(null);
  /** The product that has just been added: its quantity gets the focus once it is there. */
  const [added, setAdded] = useState<number | null>(null);
  const isThere = wants.some(({ itemId }) => itemId === added);
  useEffect(() => {
    if (added === null || !isThere) return;
    document.querySelector<HTMLInputElement>(`[data-want="${added}"] input.num`)?.focus();
    setAdded(null);
  }, [added, isThere]);
  const paste = async (text: string) => {
    setPasteError(null);
    try {
      // Few paste, so what reads it is fetched then.
      const { matchPasted } = await persistently(() => import('../lines/matchPasted.ts'));
      const { found, unknown } = await matchPasted(text);
      deeds.add(found.map(({ item, quantity }) => ({ itemId: item.id, quantity: quantity || '1' })));
      setPasted(unknown);
    } catch (error) {
      setPasteError(error);
    }
  };
  return (
    <Ask aria-label="What do you want to make?">
      <h2>What do you want to make?</h2>
      <TermsOf terms={terms} deeds={deeds} />
      <Part $top={10} $bottom={4}>
        <ItemPicker
          label="Add a product"
          placeholder="Code, name or scan, or paste rows"
          autoFocus={wants.length === 0}
          inputRef={adder}
          counted
          onPick={(item, _, quantity = '1') => {
            deeds.add([{ itemId: item.id, quantity }]);
            setAdded(item.id);
          }}
          onPasteRows={(text) => void paste(text)}
        />
      </Part>
      <ProblemBox error={pasteError} />
      {pasted.length > 0 && (
        <Part $bottom={6} role="status">
          <Late>
            {count(pasted.length, 'row')} not known: {pasted.map(({ text }) => `“${text}”`).join(', ')}
          </Late>{' '}
          <Button look="ghost" onPress={() => setPasted([])}>
            Leave out
          </Button>
        </Part>
      )}
      <Row $gap={6} $wrap $bottom={4}>
        <FillFrom deeds={deeds} />
        <KeptQuestions isEmpty={wants.length === 0} />
      </Row>
      {terms.aside && wants.length > 0 && (
        <Part $bottom={4}>
          <Faint>
            {terms.aside === 'orders'
              ? 'Promises to orders are left out, because you are asking for them here.'
              : 'Promises to planned builds are left out, because you are asking for them here.'}
          </Faint>
        </Part>
      )}
      {wants.map((want, index) => (
        <Wish
          key={want.itemId}
          want={want}
          item={items.get(want.itemId)}
          read={read[index]}
          product={answer?.products.find(({ itemId }) => itemId === want.itemId)}
          answer={answer}
          ifBegun={ifBegun.get(want.itemId) ?? null}
          items={items}
          deeds={deeds}
          onEnter={() => adder.current?.focus()}
        />
      ))}
      {(isCase || terms.changes.length > 0) && wants.length > 0 && (
        <WhatIf changes={terms.changes} answer={answer} items={items} onChange={(text) => deeds.change({ if: text })} />
      )}
    </Ask>
  );
}

/** By when, from where and what counts, in a sentence that opens to be changed. */
function TermsOf({ terms, deeds }: Pick<Props, 'terms' | 'deeds'>) {
  const format = useFormat();
  const [isOpen, setOpen] = useState(false);
  const stores = useQuestion('stores', {}).data ?? [];
  const named = stores.filter(({ id }) => terms.stores?.includes(id)).map(({ name }) => name);
  const sentence = [
    terms.by === '' ? 'Any date' : `By ${format.day(terms.by)}`,
    terms.stores === null ? 'from every store' : `from ${named.join(' and ')}`,
    terms.finishedFirst && 'finished stock first',
    terms.drafts && 'with drafts',
  ].filter((part) => part !== false);
  return (
    <>
      <Sentence aria-expanded={isOpen} onPress={() => setOpen(!isOpen)}>
        {sentence.join(', ')} <span aria-hidden>{isOpen ? '▴' : '▾'}</span>
      </Sentence>
      {isOpen && (
        <Stack $gap={10} $top={6} $bottom={10}>
          <Part $max={170}>
            <DayField
              label="Wanted by"
              value={terms.by}
              onChange={(by) => deeds.change({ by: by || null })}
              error={terms.by !== '' && terms.by < today() ? 'This day has passed. Choose a later one.' : undefined}
            />
          </Part>
          <Stores terms={terms} deeds={deeds} />
          <Tick isOn={terms.finishedFirst} onChange={(isOn) => deeds.change({ finished: isOn ? '1' : null })}>
            Use finished stock first
          </Tick>
          <Tick isOn={terms.drafts} onChange={(isOn) => deeds.change({ drafts: isOn ? '1' : null })}>
            Count drafts of orders and bills of materials
          </Tick>
        </Stack>
      )}
    </>
  );
}

function FillFrom({ deeds }: { deeds: AskDeeds }) {
  const { data } = useQuestion('fillings', {});
  const deed = (id: 'orders' | 'builds' | 'reorder', name: string, of: string, aside: Aside | null) => ({
    id,
    name,
    hint: data ? (data[id].sources === 0 ? 'nothing there' : count(data[id].sources, of)) : '',
    isDisabled: !data || data[id].sources === 0,
    act: () => deeds.fill(data?.[id].wanted ?? [], aside),
  });
  return (
    <Menu
      label="Fill from"
      look="ghost"
      deeds={[
        deed('orders', 'Open orders', 'order', 'orders'),
        deed('builds', 'Planned builds', 'build', 'builds'),
        deed('reorder', 'Reorder points', 'product', null),
      ]}
    />
  );
}

/** The stores that parts may come from; not asked where there is one. */
function Stores({ terms: { stores }, deeds }: Pick<Props, 'terms' | 'deeds'>) {
  const all = useQuestion('stores', {}).data ?? [];
  if (all.length < 2) return null;
  const chosen = new Set(stores ?? all.map(({ id }) => id));
  const choose = (id: number, isOn: boolean) => {
    const next = all.map((store) => store.id).filter((one) => (one === id ? isOn : chosen.has(one)));
    if (next.length > 0) deeds.change({ stores: next.length === all.length ? null : next.join(',') });
  };
  return (
    <Stack $gap={4} role="group" aria-label="Parts from">
      <Faint>Parts from</Faint>
      {all.map((store) => (
        <Tick
          key={store.id}
          isOn={chosen.has(store.id)}
          isDisabled={chosen.size === 1 && chosen.has(store.id)}
          onChange={(isOn) => choose(store.id, isOn)}
        >
          {store.name}
        </Tick>
      ))}
    </Stack>
  );
}
