import type { CoverItem, Supplier } from '@yosegi/contract';
import { formatDecimal, readForText } from '@yosegi/core/number';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { type Format, useFormat } from '../ui/format.ts';
import { Faint } from '../ui/text.ts';
import { useSearchChange } from '../ui/useAddress.ts';
import type { CoverAnswer, CoverAsk } from '../workers/coverAnswer.ts';
import { besidesIn, withAsked } from './AnotherCase.tsx';
import { type Known, wordsOf } from './caseWords.ts';
import { useCoverItems, useReckoned } from './useCoverage.ts';
import { type Names, useNames } from './useNames.ts';
import { readWant, type Terms, termsOf, wantsOf } from './want.ts';

const Cards = styled.ul`display: grid; grid-template-columns: repeat(auto-fit, minmax(200px, 1fr)); gap: 10px; margin: 0; padding: 0; list-style: none; > li { position: relative; }`;
const Corner = styled.span`position: absolute; top: 2px; right: 2px;`;
const Card = styled.button<{ $isOn: boolean }>`
  display: block; width: 100%; text-align: left; font: inherit; font-size: 13px; color: var(--ink); background: var(--sheet); border: 1px solid var(--line); cursor: pointer; padding: 8px 40px 8px 12px; min-height: 44px;
  border-left: 5px solid ${({ $isOn }) => ($isOn ? 'var(--honey)' : 'var(--line)')}; b { display: block; }
  mark { background: var(--coming-wash); color: var(--ink); font-weight: 600; padding: 0 2px; }
`;

/** Up to three other questions beside the first, with what differs marked. */
export function CoverCases() {
  const [search] = useSearchParams();
  const change = useSearchChange();
  const { all, at } = useMemo(() => besidesIn(search), [search]);
  const first = useAsked(all[0] ?? '');
  if (all.length === 1) return null;
  return (
    <Cards aria-label="Cases side by side">
      {all.map((text, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a case is its place
        <li key={index}>
          <OneCase
            text={text}
            first={first}
            isFirst={index === 0}
            isOn={index === at}
            onSelect={() => change(withAsked(all, index))}
          />
          {index > 0 && (
            <Corner>
              <Button
                look="ghost"
                aria-label={`Delete case ${index}`}
                onPress={() => change(withAsked(all.toSpliced(index, 1), index <= at ? Math.max(0, at - 1) : at))}
              >
                ✕
              </Button>
            </Corner>
          )}
        </li>
      ))}
    </Cards>
  );
}

interface Asked {
  readonly wants: readonly { readonly itemId: number; readonly quantity: string }[];
  readonly terms: Terms;
  readonly items: ReadonlyMap<number, CoverItem>;
  readonly answer: CoverAnswer | null;
  readonly names: Names;
}

/** A question of an address with its answer. */
function useAsked(text: string): Asked {
  const { wants, terms } = useMemo(() => {
    const search = new URLSearchParams(text);
    return { wants: wantsOf(search.get('want') ?? ''), terms: termsOf(search) };
  }, [text]);
  const { items, isWhole } = useCoverItems([
    ...wants.map(({ itemId }) => itemId),
    ...terms.changes.flatMap((one) => ('itemId' in one ? one.itemId : [])),
  ]);
  const wanted = wants.flatMap((want) => readWant(want, items, isWhole).wanted ?? []);
  const ask: CoverAsk | null = wanted.length > 0 ? { wanted, ...terms, by: terms.by || null } : null;
  const { answer } = useReckoned('cover', ask);
  return { wants, terms, items, answer, names: useNames(null, null, terms.changes) };
}

interface OneProps {
  readonly text: string;
  readonly first: Asked;
  readonly isFirst: boolean;
  readonly isOn: boolean;
  readonly onSelect: () => void;
}

function OneCase({ text, first, isFirst, isOn, onSelect }: OneProps) {
  const format = useFormat();
  const suppliers = useQuestion('suppliers', {}).data ?? NONE;
  const asked = useAsked(text);
  const own = figuresOf(asked.answer, format);
  const others = figuresOf(first.answer, format);
  const differs = isFirst ? [] : differencesOf(first, asked, { ...asked, suppliers, format });
  return (
    <Card type="button" $isOn={isOn} aria-pressed={isOn} onClick={onSelect}>
      <b>{isFirst ? 'Original question' : differs.length === 0 ? 'Same so far' : differs.join('; ')}</b>
      {own === null ? (
        <Faint>…</Faint>
      ) : (
        <small>
          {own.map((figure, index) => (
            <span key={figure}>
              {index > 0 && ' · '}
              {isFirst || figure === others?.[index] ? figure : <mark>{figure}</mark>}
            </span>
          ))}
        </small>
      )}
    </Card>
  );
}

const NONE: readonly Supplier[] = [];

/** When it is done, what can be made now, what is short, what it costs. */
function figuresOf(answer: CoverAnswer | null, format: Format): readonly string[] | null {
  if (!answer) return null;
  const { completeOn, components, products, cost } = answer;
  const now = products.reduce((sum, one) => sum + one.fromShelf + one.now, 0);
  const short = components.filter((one) => one.short > 0).length;
  return [
    completeOn === null ? 'never complete' : completeOn === '' ? 'all there now' : `done on ${format.day(completeOn)}`,
    `${format.number(formatDecimal(now))} now`,
    short === 0 ? 'nothing short' : `${short} short`,
    format.money(formatDecimal(cost)),
  ];
}

/** How a question differs from the first, in words. */
function differencesOf(first: Asked, own: Asked, known: Known): string[] {
  const { format } = known;
  const quantityIn = ({ wants }: Asked, id: number) => wants.find(({ itemId }) => itemId === id)?.quantity;
  const ids = [...new Set([...first.wants, ...own.wants].map(({ itemId }) => itemId))];
  const name = (id: number) => (own.items.get(id) ?? first.items.get(id))?.name ?? '…';
  const wants = ids.flatMap((id) => {
    const [was, is] = [quantityIn(first, id), quantityIn(own, id)];
    if (was === is) return [];
    return [is === undefined ? `without ${name(id)}` : `${shownNumber(is, format)} × ${name(id)}`];
  });
  const { terms } = own;
  return [
    ...wants,
    ...(terms.by === first.terms.by ? [] : [terms.by ? `by ${format.day(terms.by)}` : 'never']),
    ...(String(terms.stores) === String(first.terms.stores) ? [] : [terms.stores ? 'some stores' : 'every store']),
    ...(terms.finishedFirst === first.terms.finishedFirst
      ? []
      : [terms.finishedFirst ? 'finished stock first' : 'all made']),
    ...(terms.drafts === first.terms.drafts ? [] : [terms.drafts ? 'with drafts' : 'without drafts']),
    ...(terms.aside === first.terms.aside ? [] : [terms.aside ? `${terms.aside} set aside` : 'nothing set aside']),
    ...terms.changes.map((change) => wordsOf(change, known)),
  ];
}

function shownNumber(typed: string, format: Format): string {
  try {
    return format.number(formatDecimal(Number(readForText(typed))));
  } catch {
    return typed;
  }
}
