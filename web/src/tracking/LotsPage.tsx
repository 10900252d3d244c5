import type { LotRow, LotSort } from '@yosegi/contract';
import { dayAfter } from '@yosegi/core/days';
import { attributesInWords } from '@yosegi/core/tracking';
import { useState } from 'react';
import { Dialog, Heading } from 'react-aria-components';
import { usePages, useQuestion } from '../api/client.ts';
import { BestBefore, daysUntil, SOON_DAYS } from '../lines/BestBefore.tsx';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { count } from '../ui/format.ts';
import { type ListColumn, ListPage, ListTop, LongList, Narrow } from '../ui/LongList.tsx';
import { DialogCard, Overlay } from '../ui/Modal.tsx';
import { SavedFilters } from '../ui/SavedFilters.tsx';
import { EmptyState } from '../ui/States.tsx';
import { Faint, Lead } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import { useAddress } from '../ui/useAddress.ts';
import { useEach } from '../ui/useEach.ts';
import { useSorting } from '../ui/useSorting.ts';
import { DescribeLot } from './DescribeLot.tsx';
import { Holding } from './Holding.tsx';

const inDays = (days: number) => dayAfter(today(), days);

/** What each row begins with, in a file. */
const LEAD = [
  { key: 'code', title: 'Lot', sort: 'code', text: ({ code }: LotRow) => code },
  { key: 'item', title: 'Item', sort: 'item', text: ({ item }: LotRow) => item },
];

const leadOf = ({ itemId, itemCode, item, code }: LotRow) => ({
  to: `/stock/items/${itemId}?view=lots`,
  code: itemCode,
  title: code,
  under: item,
});

const columns: readonly ListColumn<LotRow>[] = [
  {
    key: 'bestBefore',
    title: 'Best before',
    width: 190,
    usual: true,
    sort: 'bestBefore',
    text: ({ bestBefore }) => bestBefore ?? '',
    show: ({ bestBefore }) => (bestBefore === null ? <Faint>keeps</Faint> : <BestBefore day={bestBefore} />),
  },
  {
    key: 'held',
    title: 'Held',
    width: 270,
    usual: true,
    text: ({ held }) => held ?? '',
    show: ({ held }) =>
      held && (
        <>
          <Chip $tone="held">held</Chip> <Faint>{held}</Faint>
        </>
      ),
  },
  {
    key: 'quantity',
    title: 'On hand',
    width: 110,
    numeric: true,
    usual: true,
    sort: 'quantity',
    text: ({ quantity }) => quantity,
    show: ({ quantity, unit, decimals }, format) => format.quantity(quantity, unit, decimals),
  },
  {
    key: 'value',
    title: 'Value',
    width: 100,
    numeric: true,
    usual: true,
    text: ({ value }) => value,
    show: ({ value }, format) => format.money(value),
  },
  {
    key: 'says',
    title: 'Recorded',
    width: 180,
    usual: true,
    text: ({ attributes }) => attributesInWords(attributes),
    show: ({ attributes }) => attributesInWords(attributes),
  },
  { key: 'bins', title: 'Where', width: 190, usual: true, text: ({ bins }) => bins, show: ({ bins }) => bins },
];

/** Lots in the order in which they expire: what has to be used soon, what is past its day, what is held. */
export function LotsPage() {
  const [show, setShow] = useAddress('show');
  const q = useSought();
  const soon = useQuestion('lots', { query: { until: inDays(SOON_DAYS), limit: 500 } }).data?.rows;
  const until = { soon: inDays(SOON_DAYS), quarter: inDays(90), past: inDays(-1) }[show];
  const { sort, down, sorting } = useSorting<LotSort>('bestBefore');
  const pages = usePages('lots', { q: q || undefined, until, held: show === 'held', sort, down, limit: 100 });
  const label = useEach('createLabelJob', 'label', 'at the label printer');
  const [holding, setHolding] = useState<readonly LotRow[]>([]);
  const [describing, setDescribing] = useState<LotRow | null>(null);
  const close = () => setHolding([]);
  return (
    <ListPage>
      <ListTop>
        <div>
          <h1>{soon ? conclusion(soon) : 'Lots'}</h1>
          <Lead>A lot past its date is held until an owner releases it. Held stock is not free.</Lead>
        </div>
      </ListTop>
      <LongList
        list="lots"
        label="Lots"
        pages={pages}
        keyOf={({ id }) => id}
        columns={columns}
        leadColumns={LEAD}
        lead={leadOf}
        sorting={sorting}
        deeds={(chosen) => [
          { id: 'hold', name: 'Hold or release…', act: () => setHolding(chosen) },
          ...(chosen.length === 1
            ? [{ id: 'describe', name: 'Add a record…', act: () => setDescribing(chosen[0] ?? null) }]
            : []),
          {
            id: 'labels',
            name: 'Print labels',
            isDisabled: label.busy,
            act: () =>
              void label.run(
                chosen.map(({ id, code }) => ({ name: code, input: { body: { of: { lotId: id, copies: 1 } } } })),
              ),
          },
        ]}
        empty={
          <EmptyState title="No lots match">
            Items that are tracked by lot get one each time they are received or finished.
          </EmptyState>
        }
      >
        <Narrow $width={230}>
          <Finder label="Find" placeholder="Lot, item or record" />
        </Narrow>
        <Narrow $width={230}>
          <Choice
            label="Which lots"
            hideLabel
            value={show}
            onChange={setShow}
            options={[
              ['', 'All lots in stock'],
              ['soon', `Expire within ${SOON_DAYS} days`],
              ['quarter', 'Expire within 90 days'],
              ['past', 'Past date'],
              ['held', 'Held'],
            ]}
          />
        </Narrow>
        <SavedFilters list="lots" />
        <LinkButton look="ghost" to="/stock/serials">
          Pieces by serial number
        </LinkButton>
      </LongList>
      {describing && <DescribeLot lot={describing} onClose={() => setDescribing(null)} />}
      {holding.length > 0 && (
        <Overlay isOpen onOpenChange={(open) => !open && close()} isDismissable>
          <DialogCard>
            <Dialog>
              <Heading slot="title">Hold or release {holding.map(({ code }) => code).join(', ')}</Heading>
              <Holding chosen={holding} idsOf={(ids) => ({ lotIds: ids, serialIds: [] })} onDone={close} one="lot" />
              <Button look="ghost" onPress={close}>
                Cancel
              </Button>
            </Dialog>
          </DialogCard>
        </Overlay>
      )}
    </ListPage>
  );
}

function conclusion(soon: readonly LotRow[]): string {
  const past = soon.filter(({ bestBefore }) => bestBefore !== null && daysUntil(bestBefore) < 0).length;
  const near = soon.length - past;
  const news = [
    past > 0 && `${count(past, 'lot')} ${past === 1 ? 'is' : 'are'} past ${past === 1 ? 'its' : 'their'} date`,
    near > 0 && `${count(near, 'lot')} expire${near === 1 ? 's' : ''} within ${SOON_DAYS} days`,
  ].filter(Boolean);
  return news.length === 0 ? `No lot expires within ${SOON_DAYS} days.` : `${news.join(', ')}.`;
}
