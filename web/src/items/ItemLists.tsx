import { X } from 'lucide-react';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { RowList, type RowListProps } from '../ui/RowList.tsx';

export interface TypedPack {
  readonly name: string;
  readonly one: string;
}
export interface TypedSupplier {
  readonly supplierId: string;
  readonly code: string;
  readonly price: string;
  readonly pack: string;
  readonly minimum: string;
  readonly leadDays: string;
  readonly breaks: readonly { readonly from: string; readonly price: string }[];
}

/** What else an item is counted in: a box of twelve. */
export function Packs({ rows, onChange, at, unit }: RowListProps<TypedPack> & { unit: string }) {
  return (
    <RowList
      title="Packs"
      hint={`“3 box” can then be entered wherever a quantity is asked for.`}
      rows={rows}
      onChange={onChange}
      blank={{ name: '', one: '' }}
      add="+ Pack"
      columns="1fr 1fr"
    >
      {(row, index, set) => (
        <>
          <Field
            label={`Name of pack ${index + 1}`}
            hideLabel
            placeholder="box"
            value={row.name}
            onChange={(name) => set({ name })}
            error={at(`packs.${index}.name`)}
          />
          <Field
            label={`Size of pack ${index + 1}`}
            hideLabel
            numeric
            suffix={`${unit} in one`}
            value={row.one}
            onChange={(one) => set({ one })}
            error={at(`packs.${index}.one`)}
          />
        </>
      )}
    </RowList>
  );
}

/** Who sells it, under which code, at what price and how. */
export function Suppliers({ rows, onChange, at, unit }: RowListProps<TypedSupplier> & { unit: string }) {
  const suppliers = useQuestion('suppliers', {}).data ?? [];
  const blank = {
    supplierId: String(suppliers[0]?.id ?? ''),
    code: '',
    price: '',
    pack: '1',
    minimum: '0',
    leadDays: '',
    breaks: [],
  };
  return (
    <RowList
      title="Suppliers"
      hint={
        suppliers.length === 0
          ? 'Add suppliers under Buying, then choose here who sells this item.'
          : `Price, pack and minimum are for one ${unit}: the order is a multiple of the pack and at least the minimum.`
      }
      rows={rows}
      onChange={onChange}
      blank={blank}
      add="+ Supplier"
      columns="1.5fr 1.2fr 0.9fr 0.8fr 0.8fr 0.8fr"
    >
      {(row, index, set) => (
        <>
          <Choice
            label="Supplier"
            value={row.supplierId}
            onChange={(supplierId) => set({ supplierId })}
            options={suppliers.map((supplier) => [String(supplier.id), supplier.name] as const)}
            error={at(`suppliers.${index}.supplierId`)}
          />
          <Field
            label="Their code"
            value={row.code}
            onChange={(code) => set({ code })}
            error={at(`suppliers.${index}.code`)}
          />
          <Field
            label="Price"
            numeric
            value={row.price}
            onChange={(price) => set({ price })}
            error={at(`suppliers.${index}.price`)}
          />
          <Field
            label="Pack"
            numeric
            value={row.pack}
            onChange={(pack) => set({ pack })}
            error={at(`suppliers.${index}.pack`)}
          />
          <Field
            label="Minimum"
            numeric
            value={row.minimum}
            onChange={(minimum) => set({ minimum })}
            error={at(`suppliers.${index}.minimum`)}
          />
          <Field
            label="Lead days"
            numeric
            value={row.leadDays}
            onChange={(leadDays) => set({ leadDays })}
            error={at(`suppliers.${index}.leadDays`)}
          />
          <Breaks row={row} index={index} at={at} unit={unit} onChange={(breaks) => set({ breaks })} />
        </>
      )}
    </RowList>
  );
}

interface BreaksProps {
  readonly row: TypedSupplier;
  readonly index: number;
  readonly at: RowListProps<TypedSupplier>['at'];
  readonly unit: string;
  readonly onChange: (breaks: TypedSupplier['breaks']) => void;
}

const Broken = styled.div`grid-column: 1 / -1; display: flex; gap: 8px; align-items: end; flex-wrap: wrap; > div { max-width: 150px; }`;

/** From which quantities on it costs less. */
function Breaks({ row, index, at, unit, onChange }: BreaksProps) {
  const set = (nth: number, part: Partial<TypedSupplier['breaks'][number]>) =>
    onChange(row.breaks.map((one, other) => (other === nth ? { ...one, ...part } : one)));
  return (
    <Broken>
      {row.breaks.map((one, nth) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a row is nothing but what is typed at its place
        <Together key={nth}>
          <Field
            label={`Price break ${nth + 1} from`}
            numeric
            suffix={unit}
            value={one.from}
            onChange={(from) => set(nth, { from })}
            error={at(`suppliers.${index}.breaks.${nth}.from`)}
          />
          <Field
            label="Price from that quantity"
            numeric
            value={one.price}
            onChange={(price) => set(nth, { price })}
            error={at(`suppliers.${index}.breaks.${nth}.price`)}
          />
          <Button
            look="icon"
            aria-label={`Remove price break ${nth + 1} of line ${index + 1}`}
            onPress={() => onChange(row.breaks.filter((_, other) => other !== nth))}
          >
            <X size={15} aria-hidden />
          </Button>
        </Together>
      ))}
      {row.breaks.length < MOST_BREAKS && (
        <Button look="ghost" onPress={() => onChange([...row.breaks, { from: '', price: '' }])}>
          Add price break
        </Button>
      )}
    </Broken>
  );
}
const MOST_BREAKS = 10;
const Together = styled.span`display: flex; gap: 6px; align-items: end; > div { max-width: 150px; }`;
