import type { CountDetail, Item } from '@yosegi/contract';
import { useState } from 'react';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { InFields } from '../lines/InFields.tsx';
import { NOTHING_TYPED, namedInOf, withScan } from '../lines/typed.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Part } from '../ui/space.ts';
import { Row } from '../ui/text.ts';

/** An item that stands where the books have none of it. */
export function FoundExtra({ detail }: { detail: CountDetail }) {
  const shelves = shelfOptions(useQuestion('stores', {}).data ?? []);
  const [binId, setBin] = useState('');
  const [lotOf, setLotOf] = useState<Item | null>(null);
  const [track, setTrack] = useState(NOTHING_TYPED);
  const found = useCommand('addCountLine', () => {
    setLotOf(null);
    setTrack(NOTHING_TYPED);
  });
  const add = (item: Item) => {
    const { lot, bestBefore } = namedInOf(item, track);
    found.mutate({ params: { id: detail.id }, body: { itemId: item.id, binId: Number(bin), lot, bestBefore } });
  };
  // Whoever counts stands at a bin of this count.
  const bin = binId || String(detail.sheet[0]?.binId ?? '');
  return (
    <Row $wrap $end $top={16}>
      <Part $width={300}>
        <ItemPicker
          label="Also found"
          placeholder="Add an item that isn’t on the sheet"
          onPick={(item, scan) => {
            if (item.tracking !== 'lot') return add(item);
            setTrack(scan ? withScan(NOTHING_TYPED, scan) : NOTHING_TYPED);
            setLotOf(item);
          }}
        />
      </Part>
      <Part $width={210}>
        <Choice label="in" value={bin} onChange={setBin} options={shelves} />
      </Part>
      {lotOf && (
        <Row $gap={8}>
          <InFields
            item={lotOf}
            typed={track}
            onChange={setTrack}
            quantity={1}
            errorAt={(name) => problemAt(found.error, name)}
          />
          <Button isDisabled={track.lot.trim() === ''} busy={found.isPending} onPress={() => add(lotOf)}>
            Add lot of {lotOf.name}
          </Button>
        </Row>
      )}
      <ProblemBox error={found.error} shownAt={['lot']} />
    </Row>
  );
}
