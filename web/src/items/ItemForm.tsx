import type { ItemDetail, Saved } from '@yosegi/contract';
import { factsOf } from '@yosegi/contract/problems';
import { isGtin } from '@yosegi/core/items';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { Form, Wide } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { TextArea } from '../ui/TextArea.tsx';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Row } from '../ui/text.ts';
import { Fields, Packs, Suppliers, type TypedField, type TypedPack, type TypedSupplier } from './ItemLists.tsx';
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
  'fields.*.name',
  'fields.*.value',
];

/** Adds an item or changes one; what the server refuses shows at its field, and everything typed stays. */
export function ItemForm({ item }: { item: ItemDetail | null }) {
  const go = useNavigate();
  const notify = useNotify();
  const units = useQuestion('units', {}).data ?? [];
  const stores = useQuestion('stores', {}).data ?? [];
  const [version, setVersion] = useState(item?.version ?? 0);
  const [typed, setTyped] = useState({
    code: item?.code ?? '',
    name: item?.name ?? '',
    unitId: String(item?.unitId ?? 1),
    source: item?.source ?? 'bought',
    homeBinId: String(item?.homeBinId ?? ''),
    sellPrice: item?.sellPrice ?? '',
    reorderPoint: item?.reorderPoint ?? '',
    standardCost: item?.standardCost ?? '',
    note: item?.note ?? '',
    tracking: item?.tracking ?? 'none',
    lotOrder: item?.lotOrder ?? 'prescribed',
    serialPattern: item?.serialPattern ?? '',
    barcode: item?.barcode ?? '',
  });
  const [taxFree, setTaxFree] = useState(item?.taxFree ?? false);
  const [packs, setPacks] = useState<readonly TypedPack[]>(item?.packs ?? []);
  const [suppliers, setSuppliers] = useState<readonly TypedSupplier[]>(() => (item?.suppliers ?? []).map(toTyped));
  const [fields, setFields] = useState<readonly TypedField[]>(item?.fields ?? []);
  const set = (name: keyof typeof typed) => (value: string) => setTyped({ ...typed, [name]: value });
  const done = ({ id }: Saved, { body }: { body: { name: string } }) => {
    notify({ text: `${body.name} is saved.` });
    void go(`/stock/items/${id}`);
  };
  const create = useCommand('createItem', done);
  const update = useCommand('updateItem', done);
  const command = item ? update : create;
  const problem = problemOf(command.error);
  const current = factsOf(problem, 'stale-save')?.current as ItemDetail | undefined;
  const optional = (text: string) => text.trim() || null;
  const submit = () => {
    const { unitId, homeBinId, sellPrice, reorderPoint, standardCost, barcode, serialPattern, ...rest } = typed;
    const body = {
      ...rest,
      unitId: Number(unitId),
      homeBinId: homeBinId === '' ? null : Number(homeBinId),
      sellPrice: optional(sellPrice),
      reorderPoint: optional(reorderPoint),
      standardCost: optional(standardCost),
      barcode: optional(barcode),
      serialPattern: optional(serialPattern),
      taxFree,
      // A line left wholly empty was only opened, not meant.
      packs: packs
        .filter(({ name, one }) => name.trim() || one.trim())
        .map(({ name, one }) => ({ name, one: one || '0' })),
      suppliers: suppliers.map(({ supplierId, leadDays, price, pack, minimum, code }) => ({
        supplierId: Number(supplierId),
        code,
        price: price.trim() || '0',
        pack: pack.trim() || '1',
        minimum: minimum.trim() || '0',
        leadDays: leadDays.trim() === '' ? null : Number(leadDays),
      })),
      fields: fields.filter(({ name, value }) => name.trim() || value.trim()),
    };
    if (item) update.mutate({ params: { id: item.id }, body: { ...body, version } });
    else create.mutate({ body });
  };
  const at = (field: string) => problemAt(command.error, field);
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
        <div style={{ marginTop: 14, maxWidth: 760 }}>
          <PictureField item={item} />
        </div>
      )}
      <Form
        style={{ marginTop: 16, maxWidth: 760 }}
        onSubmit={(event) => {
          event.preventDefault();
          submit();
        }}
      >
        <Field label="Code" value={typed.code} onChange={set('code')} autoFocus={!item} error={at('code')} />
        <Field label="Name" value={typed.name} onChange={set('name')} error={at('name')} />
        <Choice
          label="Stock unit"
          value={typed.unitId}
          onChange={set('unitId')}
          error={at('unitId')}
          options={units.map((unit) => [
            String(unit.id),
            `${unit.name}${unit.decimals > 0 ? `, ${unit.decimals} decimals` : ''}`,
          ])}
        />
        <Choice
          label="How it comes"
          value={typed.source}
          onChange={set('source')}
          options={[
            ['bought', 'bought'],
            ['made', 'made here'],
            ['both', 'both'],
          ]}
        />
        <Choice
          label="Home bin"
          value={typed.homeBinId}
          onChange={set('homeBinId')}
          error={at('homeBinId')}
          options={[['', 'none'], ...shelfOptions(stores)]}
        />
        <Field label="Sell price" numeric value={typed.sellPrice} onChange={set('sellPrice')} error={at('sellPrice')} />
        <Field
          label="Reorder point"
          numeric
          value={typed.reorderPoint}
          onChange={set('reorderPoint')}
          error={at('reorderPoint')}
        />
        <Field
          label="Barcode"
          value={typed.barcode}
          onChange={set('barcode')}
          error={at('barcode')}
          suffix={isGtin(typed.barcode.replace(/\s/g, '')) ? 'GTIN' : undefined}
        />
        <Choice
          label="Tracking"
          value={typed.tracking}
          onChange={set('tracking')}
          error={at('tracking')}
          options={[
            ['none', 'not tracked'],
            ['lot', 'by lot'],
            ['serial', 'by serial number'],
          ]}
        />
        {typed.tracking === 'lot' && (
          <Choice
            label="Which lot goes first"
            value={typed.lotOrder}
            onChange={set('lotOrder')}
            error={at('lotOrder')}
            options={[
              ['prescribed', 'the first to expire, always'],
              ['free', 'free choice, the first to expire suggested'],
            ]}
          />
        )}
        {typed.tracking === 'serial' && (
          <Field
            label="Serial pattern, # for each digit"
            placeholder="SC-####"
            value={typed.serialPattern}
            onChange={set('serialPattern')}
            error={at('serialPattern')}
          />
        )}
        <Field
          label="Standard cost"
          numeric
          value={typed.standardCost}
          onChange={set('standardCost')}
          error={at('standardCost')}
        />
        <Tick isOn={taxFree} onChange={setTaxFree}>
          Tax-free
        </Tick>
        <Wide>
          <Packs rows={packs} onChange={setPacks} at={at} unit={unit} />
        </Wide>
        <Wide>
          <Suppliers rows={suppliers} onChange={setSuppliers} at={at} unit={unit} />
        </Wide>
        <Wide>
          <Fields rows={fields} onChange={setFields} at={at} />
        </Wide>
        <Wide>
          <TextArea label="Note" value={typed.note} onChange={set('note')} error={at('note')} />
        </Wide>
        <Wide>
          {command.error && (
            <ProblemBox
              error={command.error}
              shownAt={SHOWN}
              ways={
                current && (
                  <Button
                    onPress={() => {
                      setVersion(current.version);
                      command.reset();
                    }}
                  >
                    Keep mine, and save over theirs
                  </Button>
                )
              }
            >
              {current && (
                <Faint>
                  Theirs now: {current.code}, {current.name}, {current.unit}, price {current.sellPrice ?? 'none'}, bin{' '}
                  {current.homeBin ?? 'none'}.
                </Faint>
              )}
            </ProblemBox>
          )}
          <Row style={{ marginTop: 8 }}>
            <Button look="go" type="submit" busy={command.isPending}>
              {item ? 'Save' : 'Add the item'}
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

const toTyped = (supplier: ItemDetail['suppliers'][number]): TypedSupplier => ({
  supplierId: String(supplier.supplierId),
  code: supplier.code,
  price: supplier.price,
  pack: supplier.pack,
  minimum: supplier.minimum,
  leadDays: supplier.leadDays === null ? '' : String(supplier.leadDays),
});
