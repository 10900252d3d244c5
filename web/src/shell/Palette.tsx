import type { Found } from '@yosegi/contract';
import { hasWords } from '@yosegi/core/find';
import { type KeyboardEvent, useDeferredValue, useEffect, useState } from 'react';
import {
  Autocomplete,
  Dialog,
  Header,
  Input,
  Menu,
  MenuItem,
  MenuSection,
  Modal,
  ModalOverlay,
  SearchField,
} from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { problemOf, useQuestion } from '../api/client.ts';
import { type Format, useFormat } from '../ui/format.ts';
import { Tile } from '../ui/Tile.tsx';

const Overlay = styled(
  ModalOverlay,
)`position: fixed; inset: 0; background: var(--veil); z-index: 40; display: grid; justify-items: center; align-items: start; padding-top: 12vh;`;
const Card = styled(
  Modal,
)`width: min(620px, calc(100vw - 24px)); background: var(--sheet); border-radius: 5px; box-shadow: 0 18px 60px var(--deep); overflow: hidden;`;
const Box = styled(SearchField)`
  input { width: 100%; border: 0; border-bottom: 1px solid var(--line); background: none; padding: 16px 18px; font: 600 19px var(--display); outline: none; }
`;
const List = styled(Menu)`padding: 6px; outline: none;`;
/** It scrolls by keys where one marks with them, and takes the focus for those who scroll otherwise. */
const Frame = styled.section`max-height: 52vh; overflow: auto; &:focus-visible { outline-offset: -2px; }`;
const Entry = styled(MenuItem)`
  display: grid; grid-template-columns: 32px 1fr auto; gap: 12px; align-items: center; padding: 7px 10px; border-radius: 3px; cursor: pointer; outline: none;
  small { color: var(--ink-2); }
  &[data-focused] { background: var(--coming-wash); box-shadow: inset 4px 0 var(--honey); }
  @media (forced-colors: active) { &[data-focused] { outline: 2px solid Highlight; outline-offset: -2px; } }
`;
const Part = styled(MenuSection)`& + & { border-top: 1px solid var(--line-soft); margin-top: 4px; padding-top: 4px; }`;
const Heading = styled(Header)`padding: 8px 10px 2px; font-size: 12px; color: var(--ink-2);`;
const Nothing = styled.div`padding: 14px 16px; color: var(--ink-2);`;

interface Target {
  readonly key: string;
  readonly to: string;
  readonly tile: string | null;
  readonly title: string;
  readonly hint: string;
  /** Other words that it is looked for by. */
  readonly also?: string;
}

const places: readonly Target[] = [
  ['/today', 'Today'],
  ['/define', 'Define'],
  ['/cover', 'Cover'],
  ['/build', 'Build'],
  ['/build/board', 'Board: work by person and day'],
  ['/build/tasks', 'Tasks'],
  ['/build/repairs', 'Repairs'],
  ['/build/repairs?new=1', 'Take in a repair'],
  ['/orders/jobs', 'Jobs'],
  ['/pick', 'Pick'],
  ['/take-apart', 'Take apart: returned goods'],
  ['/take-apart/stock', 'Take stock apart'],
  ['/take-apart/returns', 'Returns'],
  ['/take-apart/why', 'Return reasons'],
  ['/stock/items', 'Stock'],
  ['/stock/items?new=1', 'New item'],
  ['/define/new', 'New bill of materials'],
  ['/stock/receive', 'Receive goods'],
  ['/stock/where', 'Stock locations'],
  ['/stock/lots', 'Lots and best-before dates'],
  ['/stock/serials', 'Pieces by serial number'],
  ['/stock/move', 'Move goods'],
  ['/stock/adjust', 'Adjust stock'],
  ['/stock/counts', 'Count stock'],
  ['/stock/movements', 'Movements'],
  ['/stock/documents', 'Documents'],
  ['/stock/on-a-day', 'Stock on a date'],
  ['/stock/places', 'Places and units', 'settings stores bins labour rates measures'],
  ['/buying', 'Buy list'],
  ['/buying/orders', 'Purchase orders'],
  ['/orders?new=1', 'New order'],
  ['/orders/weeks', 'Orders for the next four weeks'],
  ['/orders/customers', 'Customers'],
  ['/orders/customers?new=1', 'New customer'],
  ['/devices/shop', 'Web shop'],
  ['/buying/orders?new=1', 'New purchase order'],
  ['/buying/suppliers', 'Suppliers'],
  ['/buying/suppliers?new=1', 'New supplier'],
  ['/stock/put-right', 'Put right'],
  ['/stock/revalue', 'Revalue stock'],
  ['/devices/scanner', 'Scanner'],
  ['/devices/scale', 'Scale'],
  ['/devices/printer', 'Label printer'],
  ['/devices/mailbox', 'Suppliers’ mailbox'],
  ['/stock/in-out', 'Import or export', 'file spreadsheet csv xlsx'],
  ['/company', 'Company and people', 'settings name address logo papers currency language locale sign in rights'],
  ['/set-up', 'Company setup', 'settings first steps start'],
  ['/buying/reorder', 'Reorder points', 'settings minimum stock'],
  ['/define/replace', 'Replace a part'],
  ['/define/faults', 'Bills of materials to fix'],
].map(([to = '', title = '', also = '']) => ({ key: to, to, tile: null, title, also, hint: 'go' }));

/** What lists the keys of the screen one is on. */
const KEYS: Target = {
  ...{ key: '?', to: '?', tile: null, title: 'Keys of this screen', hint: '?' },
  also: 'shortcuts keyboard help',
};

const pathOf: Record<Found['kind'], (id: number, code: string) => string> = {
  item: (id) => `/stock/items/${id}`,
  definition: (id) => `/define/${id}`,
  build: (id) => `/build/${id}`,
  order: (id) => `/orders/${id}`,
  parcel: (id) => `/orders/${id}`,
  customer: (id) => `/orders/customers/${id}`,
  purchase: (id) => `/buying/orders/${id}`,
  supplier: (id) => `/buying/suppliers/${id}`,
  document: (id) => `/stock/documents/${id}`,
  repair: (id) => `/build/repairs/${id}`,
  return: (id) => `/take-apart/returns/${id}`,
  serial: (id) => `/stock/serials/${id}`,
  lot: (_, code) => `/stock/lots?${new URLSearchParams({ q: code })}`,
  job: (_, tag) => `/orders/jobs/${encodeURIComponent(tag)}`,
};
/** Under which heading it stands where it is no part of an item. */
const headings: Partial<Record<Found['kind'], string>> = {
  order: 'Customers’ orders',
  parcel: 'Parcels',
  customer: 'Customers',
  purchase: 'Purchase orders',
  supplier: 'Suppliers',
  repair: 'Repairs',
  return: 'Returns',
  serial: 'Serial numbers',
  lot: 'Lots',
  job: 'Jobs',
  document: 'Documents',
};
const purposes: Readonly<Record<string, string>> = {
  build: 'bill of materials',
  rework: 'rework',
  record: 'for the record',
};

function targetOf(found: Found, format: Format): Target {
  const { kind, id, code, name, state, stock, tile } = found;
  const amount = stock && format.quantity(stock.quantity, stock.unit, 3);
  const shared = {
    key: `${kind}${id}${kind === 'job' ? code : ''}`,
    to: pathOf[kind](id, code),
    tile: kind === 'item' ? tile : null,
  };
  if (kind === 'item') return { ...shared, title: `${name} · ${code}`, hint: `item, ${amount} in stock` };
  if (kind === 'definition') return { ...shared, title: `${name} · ${code}`, hint: purposes[state ?? ''] ?? '' };
  if (kind === 'build') return { ...shared, title: `${code} · ${amount} × ${name}`, hint: said(state) };
  if (kind === 'document' || kind === 'job') return { ...shared, title: code, hint: kind };
  if (kind === 'serial' || kind === 'lot') return { ...shared, title: `${code} · ${name}`, hint: kind };
  return { ...shared, title: `${name} · ${code}`, hint: said(state) || kind };
}

const said = (state: string | null) => state?.replaceAll('-', ' ') ?? '';

interface Section {
  readonly title: string;
  /** An item says by itself what it is. */
  readonly isThing: boolean;
  readonly targets: readonly Target[];
}

/** What was found, thing by thing as it came: an item with all that is its own, everything else after its kind. */
function sectionsOf(found: readonly Found[], format: Format): Section[] {
  const sections = new Map<string, { isThing: boolean; targets: Target[] }>();
  for (const one of found) {
    const title = headings[one.kind] ?? one.name;
    const section = sections.get(title) ?? { isThing: !(one.kind in headings), targets: [] };
    section.targets.push(targetOf(one, format));
    sections.set(title, section);
  }
  return [...sections].map(([title, section]) => ({ title, ...section }));
}

interface Ways {
  readonly onClose: () => void;
  /** Lists the keys of the screen beneath. */
  readonly onKeys: () => void;
}

/** Ctrl K: finds any item, build, definition or document, and goes to any station. */
export function Palette({ onClose, onKeys }: Ways) {
  return (
    <Overlay isOpen onOpenChange={(next) => !next && onClose()} isDismissable>
      <Card>
        <Dialog aria-label="Find or do">
          <Search onClose={onClose} onKeys={onKeys} />
        </Dialog>
      </Card>
    </Overlay>
  );
}

function Search({ onClose, onKeys }: Ways) {
  const go = useNavigate();
  const [text, setText] = useState('');
  const asked = useDeferredValue(text.trim());
  const found = useQuestion('find', { query: { q: asked } }, { enabled: asked !== '', keep: true });
  const matching = [...places, KEYS].filter(({ title, also }) => hasWords(`${title} ${also ?? ''}`, asked));
  const format = useFormat();
  const going = asked === '' ? places : matching;
  const sections = [
    ...(going.length > 0 ? [{ title: 'Go to', isThing: false, targets: going }] : []),
    ...sectionsOf(asked === '' ? [] : (found.data ?? []), format),
  ];
  const targets = sections.flatMap((section) => section.targets);
  const open = (target: Target | undefined) => {
    if (!target) return;
    onClose();
    if (target === KEYS) onKeys();
    else void go(target.to);
  };
  const settled =
    asked === text.trim() && (asked === '' || found.isError || (found.isSuccess && !found.isPlaceholderData));
  const nothing = found.isError ? `Couldn’t search. ${problemOf(found.error)?.detail}` : 'Nothing matches that name.';
  const [hurried, setHurried] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only the arrival of the awaited answer matters
  useEffect(() => {
    if (!hurried || !settled) return;
    setHurried(false);
    open(targets[0]);
  }, [hurried, settled]);
  const enter = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Escape') {
      // One is enough, also with something typed.
      event.stopPropagation();
      onClose();
      return;
    }
    if (event.key !== 'Enter' || event.ctrlKey) return;
    event.preventDefault();
    event.stopPropagation();
    // What is marked while the answer is still coming belongs to an older question; and what is marked may be gone.
    const marked = document.getElementById(event.currentTarget.getAttribute('aria-activedescendant') ?? '');
    if (settled) open(targets.find(({ key }) => key === marked?.dataset.key) ?? targets[0]);
    else setHurried(true);
  };
  return (
    <Autocomplete inputValue={text} onInputChange={setText}>
      <Box aria-label="Find or do" autoFocus>
        <Input onKeyDownCapture={enter} placeholder="Find an item, a build or a bill of materials, or go to a page" />
      </Box>
      <Frame aria-label="Results" tabIndex={0}>
        <List
          aria-label="Found"
          onAction={(key) => open(targets.find((known) => known.key === key))}
          renderEmptyState={() => <Nothing>{found.isFetching ? 'Looking…' : nothing}</Nothing>}
        >
          {sections.map((section) => (
            <Part key={section.title} id={section.title} aria-label={section.title}>
              {section.isThing ? null : <Heading>{section.title}</Heading>}
              {section.targets.map((target) => (
                <Entry key={target.key} id={target.key} textValue={target.title}>
                  {target.tile ? <Tile code={target.tile} size={26} /> : <span aria-hidden>→</span>}
                  <span>{target.title}</span>
                  <small>{target.hint}</small>
                </Entry>
              ))}
            </Part>
          ))}
        </List>
      </Frame>
    </Autocomplete>
  );
}
