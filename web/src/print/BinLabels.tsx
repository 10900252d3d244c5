import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { binLabel } from '../scan/scans.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { VisuallyHidden } from '../ui/text.ts';
import { PrintBar } from './PrintBar.tsx';
import { Barcode } from './paper.tsx';

const Sheet = styled.div`
  display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 4mm; width: min(190mm, 100%); margin: 18px auto; color: #000;
  @media print { margin: 0; width: auto; }
`;
const Label = styled.section`
  background: #fff; border: 1pt solid #000; border-radius: 2mm; padding: 4mm 5mm; display: flex; justify-content: space-between; align-items: center;
  gap: 4mm; break-inside: avoid; min-height: 32mm;
  b { font: 700 34pt/1 var(--display); display: block; } span { font-size: 11pt; }
`;

/** A label for every bin of a store, in walking order: its code to be read from afar, and its barcode. */
export function BinLabels({ storeId }: { storeId: number }) {
  const stores = useQuestion('stores', {});
  return (
    <>
      <PrintBar to="/stock/places" back="the places" />
      <Answer of={stores}>
        {(rows) => {
          const store = rows.find((one) => one.id === storeId);
          const bins = store?.bins.filter((bin) => bin.kind === 'shelf') ?? [];
          if (!store || bins.length === 0)
            return (
              <EmptyState title="No bins to label">Add bins to the store first, under Places and units.</EmptyState>
            );
          return (
            <>
              <VisuallyHidden as="h1">Labels of {store.name}</VisuallyHidden>
              <Sheet>
                {bins.map((bin) => (
                  <Label key={bin.id} aria-label={`Label of ${bin.code}`}>
                    <div>
                      <b>{bin.code}</b>
                      <span>{store.name}</span>
                    </div>
                    <Barcode text={binLabel(store, bin)} />
                  </Label>
                ))}
              </Sheet>
            </>
          );
        }}
      </Answer>
    </>
  );
}
