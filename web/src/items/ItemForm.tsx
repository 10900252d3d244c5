import { type ItemDetail, ItemInput, type Saved } from '@yosegi/contract';
import { isGtin } from '@yosegi/core/items';
import { useNavigate } from 'react-router';
import { useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { Form, Wide } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { OwnFields, type TypedField } from '../ui/OwnFields.tsx';
import { SaveProblem } from '../ui/Problem.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Part } from '../ui/space.ts';
import { TextArea } from '../ui/TextArea.tsx';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Lead, Row } from '../ui/text.ts';
import { useRecordForm } from '../ui/useRecordForm.ts';
import { Packs, Suppliers, type TypedPack, type TypedSupplier } from './ItemLists.tsx';
import { PictureField } from './PictureField.tsx';

/** Fields that say beside themselves what is wrong with them. */
const SHOWN = [
  'code',
  'name',
  'unitId',
  'homeBinId',
  'sellPrice',
  'reorderPoint',
  'barcode',
  'tracking',
  'lotOrder',
  'lotFields',
  'returnDays',
  'serialPattern',
  'standardCost',
  'note',
  'packs.*.name',
  'packs.*.one',
  'suppliers.*.supplierId',
  'suppliers.*.code',
  'suppliers.*.price',
  'suppliers.*.pack',
  'suppliers.*.minimum',
  'suppliers.*.leadDays',
  'suppliers.*.breaks.*.from',
  'suppliers.*.breaks.*.price',
  'fields.*.name',
  'fields.*.value',
];

/** Adds an item or changes one; what the server refuses shows at its field, and everything typed stays. */
export function ItemForm({ item }: { item: ItemDetail | null }) {
  const go = useNavigate();
  const notify = useNotify();
  const mayValue = useCan('value');
  const units = useQuestion('units', {}).data ?? [];
  const stores = useQuestion('stores', {}).data ?? [];
  const done = ({ id }: Saved, { body }: { body: { name: string } }) => {
    notify({ text: `${body.name} saved.` });
    void go(`/stock/items/${id}`);
  };
  const saved = (one: Saved) => form.saved(one);
  const create = useCommand('createItem', done, saved);
  const update = useCommand('updateItem', done, saved);
  const command = item ? update : create;
  const form = useRecordForm({
    record: item,
    read: readItem,
    bodyOf,
    schema: ItemInput,
    keptAs: item ? `item.${item.id}` : 'item',
    name: item ? item.name : 'the new item',
    shownAt: SHOWN,
    command,
  });
  const { typed, set, at, field } = form;
  const unit = units.find((one) => String(one.id) === typed.unitId)?.code ?? 'each';
  return (
    <>
      <Row $gap={14}>
        <Tile code={typed.code || 'new'} size={52} />
        <div>
          <h1>{item ? `Change ${item.name}` : 'New item'}</h1>
          <Lead>The tile follows the code: the same code always draws the same one.</Lead>
        </div>
      </Row>
      {item && (
        <Part $top={14} $max={760}>
          <PictureField item={item} />
        </Part>
      )}
      <Form
        $top={16}
        $max={760}
        onSubmit={form.submit((body) =>
          item
            ? update.mutate({ params: { id: item.id }, body: { ...body, version: form.version } })
            : create.mutate({ body }),
        )}
      >
        <Field label="Code" {...field('code')} autoFocus={!item} />
        <Field label="Name" {...field('name')} />
        <Choice
          label="Stock unit"
          {...field('unitId')}
          options={units.map((unit) => [
            String(unit.id),
            `${unit.name}${unit.decimals > 0 ? `, ${unit.decimals} decimals` : ''}`,
          ])}
        />
        <Choice
          label="Bought or made"
          {...field('source')}
          options={[
            ['bought', 'bought'],
            ['made', 'made here'],
            ['both', 'both'],
          ]}
        />
        <Choice label="Home bin" {...field('homeBinId')} options={[['', 'none'], ...shelfOptions(stores)]} />
        <Field label="Sell price" numeric {...field('sellPrice')} />
        <Field label="Reorder point" numeric {...field('reorderPoint')} />
        <Field
          label="Barcode"
          {...field('barcode')}
          suffix={isGtin(typed.barcode.replace(/\s/g, '')) ? 'GTIN' : undefined}
        />
        <Choice
          label="Tracking"
          {...field('tracking')}
          options={[
            ['none', 'not tracked'],
            ['lot', 'by lot'],
            ['serial', 'by serial number'],
          ]}
        />
        {typed.tracking === 'lot' && (
          <Choice
            label="Lot order"
            {...field('lotOrder')}
            options={[
              ['prescribed', 'the first to expire, always'],
              ['free', 'free choice, the first to expire suggested'],
            ]}
          />
        )}
        {typed.tracking === 'lot' && (
          <Field label="Recorded for each lot" placeholder="colour, moisture" {...field('lotFields')} />
        )}
        {typed.tracking === 'serial' && (
          <Field label="Serial pattern, # for each digit" placeholder="SC-####" {...field('serialPattern')} />
        )}
        <Field label="Standard cost" numeric isDisabled={!mayValue} {...field('standardCost')} />
        <Field label="Return window, days" numeric {...field('returnDays')} />
        <Tick isOn={typed.taxFree} onChange={(taxFree) => set({ taxFree })}>
          Tax-free
        </Tick>
        <Wide>
          <Packs rows={typed.packs} onChange={(packs) => set({ packs })} at={at} unit={unit} />
        </Wide>
        <Wide>
          <Suppliers rows={typed.suppliers} onChange={(suppliers) => set({ suppliers })} at={at} unit={unit} />
        </Wide>
        <Wide>
          <OwnFields
            rows={typed.fields}
            onChange={(fields) => set({ fields })}
            at={at}
            hint="Anything else to record: warranty months, colour, tariff number."
            example="Warranty months"
          />
        </Wide>
        <Wide>
          <TextArea label="Note" {...field('note')} />
        </Wide>
        <Wide>
          <SaveProblem
            command={command}
            over={form}
            theirs={`${item?.code}, ${item?.name}, ${item?.unit}, price ${item?.sellPrice ?? 'none'}, bin ${item?.homeBin ?? 'none'}`}
            shownAt={SHOWN}
          />
          <Row $top={8}>
            <Button look="go" type="submit" busy={command.isPending}>
              {item ? 'Save' : 'Add item'}
            </Button>
            <LinkButton look="ghost" to={item ? `/stock/items/${item.id}` : '/stock/items'}>
              Back
            </LinkButton>
          </Row>
        </Wide>
      </Form>
    </>
  );
}

const readItem = (item: ItemDetail | null) => ({
  code: item?.code ?? '',
  name: item?.name ?? '',
  unitId: String(item?.unitId ?? 1),
  source: item?.source ?? ('bought' as const),
  homeBinId: String(item?.homeBinId ?? ''),
  sellPrice: item?.sellPrice ?? '',
  reorderPoint: item?.reorderPoint ?? '',
  standardCost: item?.standardCost ?? '',
  note: item?.note ?? '',
  tracking: item?.tracking ?? ('none' as const),
  lotOrder: item?.lotOrder ?? ('prescribed' as const),
  lotFields: (item?.lotFields ?? []).join(', '),
  returnDays: item?.returnDays == null ? '' : String(item.returnDays),
  serialPattern: item?.serialPattern ?? '',
  barcode: item?.barcode ?? '',
  taxFree: item?.taxFree ?? false,
  packs: (item?.packs ?? []) as readonly TypedPack[],
  suppliers: (item?.suppliers ?? []).map(supplierOf) as readonly TypedSupplier[],
  fields: (item?.fields ?? []) as readonly TypedField[],
});
type Typed = ReturnType<typeof readItem>;

const supplierOf = (supplier: ItemDetail['suppliers'][number]): TypedSupplier => ({
  supplierId: String(supplier.supplierId),
  code: supplier.code,
  price: supplier.price,
  pack: supplier.pack,
  minimum: supplier.minimum,
  leadDays: supplier.leadDays === null ? '' : String(supplier.leadDays),
  breaks: supplier.breaks,
});

const optional = (text: string) => text.trim() || null;

const bodyOf = (typed: Typed) => ({
  ...typed,
  unitId: Number(typed.unitId),
  homeBinId: typed.homeBinId === '' ? null : Number(typed.homeBinId),
  sellPrice: optional(typed.sellPrice),
  reorderPoint: optional(typed.reorderPoint),
  standardCost: optional(typed.standardCost),
  barcode: optional(typed.barcode),
  returnDays: typed.returnDays.trim() === '' ? null : Number(typed.returnDays),
  lotFields:
    typed.tracking === 'lot'
      ? typed.lotFields
          .split(',')
          .map((name) => name.trim())
          .filter(Boolean)
      : [],
  serialPattern: optional(typed.serialPattern),
  // A line left wholly empty was only opened, not meant.
  packs: typed.packs
    .filter(({ name, one }) => name.trim() || one.trim())
    .map(({ name, one }) => ({ name, one: one || '0' })),
  suppliers: typed.suppliers.map(({ supplierId, leadDays, price, pack, minimum, code, breaks }) => ({
    supplierId: Number(supplierId),
    code,
    price: price.trim() || '0',
    pack: pack.trim() || '1',
    minimum: minimum.trim() || '0',
    leadDays: leadDays.trim() === '' ? null : Number(leadDays),
    breaks: breaks
      .filter((one) => one.from.trim() || one.price.trim())
      .map((one) => ({ from: one.from.trim() || '0', price: one.price.trim() || '0' })),
  })),
  fields: typed.fields.filter(({ name, value }) => name.trim() || value.trim()),
});
