import type { CoverSource } from '@yosegi/contract';
import { type Source, sourceKey } from '@yosegi/core/demand';
import { formatDecimal, readForText } from '@yosegi/core/number';
import styled from 'styled-components';
import { Button } from '../ui/Button.tsx';
import { count, type Format, useFormat } from '../ui/format.ts';
import { Stave } from '../ui/Stave.tsx';
import { Faint, Late, Row } from '../ui/text.ts';
import type { Aim, Share, WayShown } from '../workers/scarceAnswer.ts';
import type { Search } from './useSearch.ts';

export type WayName = 'date' | Aim;
/** By date, and the others as far as they are found. */
export type Ways = Readonly<Record<'date', WayShown>> & Readonly<Record<Aim, WayShown | null>>;
export type Searches = Readonly<Record<Aim, Search & { readonly stop: () => void }>>;

const Cards = styled.div`display: grid; grid-template-columns: repeat(auto-fit, minmax(230px, 1fr)); gap: 12px; align-items: start;`;
const Card = styled.section<{ $isOn: boolean }>`
  background: var(--sheet); border: 1px solid var(--line-soft); border-radius: 2px;
  ${({ $isOn }) => ($isOn ? 'box-shadow: inset 0 4px var(--honey);' : '')}
`;
const Choose = styled.button`
  display: block; width: 100%; text-align: left; font: inherit; color: var(--ink); background: none; border: 0; cursor: pointer; padding: 11px 13px 6px; min-height: 44px;
  h3 { margin: 0; }
`;
const Inner = styled.div`padding: 0 13px 10px;`;
const Who = styled.div`
  display: grid; grid-template-columns: 1fr 74px 66px; gap: 8px; align-items: center; font-size: 12.5px; padding: 4px 0; border-bottom: 1px dotted var(--line);
  > span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
`;

const titles = {
  date: 'By wanted date',
  orders: 'Most orders complete',
  value: 'The most sales value',
} as const;

interface Props {
  readonly ways: Ways;
  readonly way: WayName;
  readonly searches: Searches;
  /** Who waits as it stands. */
  readonly waiting: readonly Source[];
  readonly named: readonly CoverSource[];
  readonly onSelect: (way: WayName) => void;
}

/** The ways to share out what is scarce, side by side. */
export function WayCards({ ways, way, searches, waiting, named, onSelect }: Props) {
  return (
    <Cards>
      {(['date', 'orders', 'value'] as const).map((one) => (
        <Card key={one} $isOn={one === way} aria-label={titles[one]}>
          <Choose type="button" aria-pressed={one === way} onClick={() => onSelect(one)}>
            <h3>{titles[one]}</h3>
            <Totals way={ways[one]} named={named} isStanding={isSame(ways[one]?.waits, waiting)} />
          </Choose>
          <Inner>
            {one !== 'date' && <Progress search={searches[one]} isThere={ways[one] !== null} />}
            {ways[one] && <Rows way={ways[one]} named={named} />}
          </Inner>
        </Card>
      ))}
    </Cards>
  );
}

/** Whether the same wait as it stands. */
export function isSame(waits: readonly Source[] | undefined, waiting: readonly Source[]): boolean {
  const keys = new Set(waiting.map(sourceKey));
  return waits !== undefined && waits.length === keys.size && waits.every((one) => keys.has(sourceKey(one)));
}

function Totals({
  way,
  named,
  isStanding,
}: {
  way: WayShown | null;
  named: readonly CoverSource[];
  isStanding: boolean;
}) {
  const format = useFormat();
  if (!way) return <Faint>…</Faint>;
  const worth = new Map(named.map((one) => [`${one.kind}:${one.id}`, readForText(one.worth ?? '0')]));
  const total = way.whole.reduce((sum, one) => sum + (worth.get(sourceKey(one)) ?? 0n), 0n);
  const orders = way.standings.filter(({ source }) => source.kind === 'order').length;
  const others = orders - way.whole.length;
  return (
    <Faint>
      {way.whole.length === 0
        ? 'no order complete'
        : `${count(way.whole.length, 'order')} complete · ${format.money(formatDecimal(total))}`}
      {others > 0 && ` · ${others} late`}
      {isStanding && ' · current allocation'}
    </Faint>
  );
}

/** How far the search has come, in words. */
function Progress({ search, isThere }: { search: Searches[Aim]; isThere: boolean }) {
  if (search.state === 'failed') return <Late>The search failed. Allocation by date stays in place.</Late>;
  if (search.state === 'stopped' && !isThere) return <Faint>Stopped before anything was found.</Faint>;
  if (search.state !== 'running') return null;
  return (
    <Row $gap={8} aria-live="polite">
      <Faint>{gapWords(search) ?? 'Searching…'}</Faint>
      <Button look="ghost" onPress={search.stop}>
        Stop
      </Button>
    </Row>
  );
}

/** How much better it could still be; null where nothing is found yet. */
export function gapWords({ found }: Search): string | null {
  if (!found?.yes) return null;
  const gap = found.atMost > 0 ? (found.atMost - found.worth) / found.atMost : 0;
  return gap <= 0 ? 'Best possible so far' : `At most ${Math.max(1, Math.ceil(gap * 100))}% better is still possible`;
}

const MOST_ROWS = 8;

function Rows({ way, named }: { way: WayShown; named: readonly CoverSource[] }) {
  const format = useFormat();
  const names = new Map(named.map((one) => [`${one.kind}:${one.id}`, one]));
  const orders = way.standings.filter(({ source }) => source.kind === 'order');
  // The same in every way, so that they can be told apart line by line.
  const sorted = orders.toSorted(
    (a, b) => (a.wantedOn ?? '9').localeCompare(b.wantedOn ?? '9') || a.source.id - b.source.id,
  );
  const rest = sorted.length - MOST_ROWS;
  return (
    <>
      {sorted.slice(0, MOST_ROWS).map(({ source, completeOn, isWhole }) => {
        const name = names.get(sourceKey(source));
        const when = wordsOf(completeOn, format);
        return (
          <Who key={source.id}>
            <span title={`${name?.number ?? ''} ${name?.who ?? ''}`}>
              {name?.number} <Faint>{name?.who}</Faint>
            </span>
            <ShareStave shares={way.shares.filter((one) => sourceKey(one.source) === sourceKey(source))} label={when} />
            {isWhole ? <b className="num">{when}</b> : <Late className="num">{when}</Late>}
          </Who>
        );
      })}
      {rest > 0 && <Faint>and {rest} more</Faint>}
    </>
  );
}

const wordsOf = (on: string | null, format: Format) => (on === null ? 'no date' : on === '' ? 'now' : format.day(on));

/** Of all its scarce parts together, each as much as the others. */
function ShareStave({ shares, label }: { shares: readonly Share[]; label: string }) {
  const part = (of: 'now' | 'coming' | 'short') => shares.reduce((sum, share) => sum + share[of] / share.need, 0);
  if (shares.length === 0) return <span />;
  const amounts = {
    needed: shares.length,
    free: part('now'),
    coming: part('coming'),
    promised: 0,
    short: part('short'),
  };
  return <Stave small amounts={amounts} label={`Scarce parts: ${label}`} />;
}
