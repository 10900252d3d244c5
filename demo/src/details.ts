import { api, type Item, type ItemDetail, type LineInput, picturePath } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { checkDigit } from '@yosegi/core/items';
import sharp from 'sharp';
import { type Buying, supplierOf } from './buying.ts';
import { parts } from './catalogue.ts';
import type { DemoClient } from './client.ts';

const packs: Record<string, readonly [name: string, size: string]> = {
  'SCREW-40': ['box', '200'],
  'JAR-125': ['tray', '24'],
  'LID-58': ['bag', '100'],
  'NAIL-20': ['tin', '2.5'],
  'WIRE-ST': ['coil', '250'],
  FOUND: ['pack', '50'],
};
const fields: Record<string, readonly [name: string, value: string]> = {
  'SCALE-1': ['Warranty months', '24'],
  'HIVE-10': ['Wood', 'western red cedar'],
  'SMK-1': ['Warranty months', '12'],
  'SUIT-M': ['Chest, cm', '96 to 104'],
};

/** A wholesaler who has a bit of everything: dearer, and soon. */
const SECOND = 'IRON';

/** What an owner adds to a catalogue once it is in use: suppliers, packs, alternates, kits, a rework, and loose ends. */
export class Details {
  constructor(
    private readonly client: DemoClient,
    private readonly items: Map<string, Item>,
    private readonly bin: (code: string) => number,
    /** The day a new revision of the hive comes into use. */
    private readonly later: string,
  ) {}

  async add(): Promise<void> {
    await this.drawPicture('TASTE-3');
    await this.hiveWithAlternates();
    await this.kits();
    await this.rework();
    await this.looseEnds();
  }

  /** Suppliers' prices, packs, barcodes and fields, as an owner enters them once the catalogue stands. */
  async describeItems(buying: Buying): Promise<void> {
    let number = 0;
    for (const [code] of this.items) {
      const part = parts.find(([known]) => known === code);
      const [supplier, , leadDays] = part ? supplierOf(part[3]) : [];
      const pack = packs[code];
      const field = fields[code];
      number += 1;
      const digits = `2000417${String(number).padStart(5, '0')}`;
      await this.change(code, {
        barcode: part ? `HB-${code}` : digits + checkDigit(digits),
        // Some parts are still without a standard.
        ...(part && number % 5 !== 0 ? { standardCost: String(part[4]) } : {}),
        packs: pack ? [{ name: pack[0], one: pack[1] }] : [],
        fields: field ? [{ name: field[0], value: field[1] }] : [],
        suppliers:
          part && supplier
            ? [
                {
                  supplierId: buying.supplierId(supplier),
                  code: `${supplier.slice(0, 2)}-${1000 + number * 7}`,
                  price: String(part[4]),
                  pack: pack?.[1] ?? '1',
                  leadDays: leadDays ?? null,
                  // Three packs at once are a tenth cheaper for each.
                  breaks: pack ? [{ from: String(Number(pack[1]) * 3), price: (part[4] * 0.9).toFixed(4) }] : [],
                },
                ...(number % 6 === 0 && supplier !== SECOND
                  ? [
                      {
                        supplierId: buying.supplierId(SECOND),
                        code: `2-${1000 + number * 7}`,
                        price: (part[4] * 1.12).toFixed(4),
                        pack: pack?.[1] ?? '1',
                        leadDays: 3,
                      },
                    ]
                  : []),
              ]
            : [],
      });
    }
  }

  /** Jars on a shelf, drawn here so that the demo has a picture nobody else owns. */
  private async drawPicture(code: string): Promise<void> {
    const jar = (x: number, honey: string) =>
      `<g transform="translate(${x} 60)"><rect width="84" height="120" rx="14" fill="${honey}"/><rect x="6" y="-16" width="72" height="20" rx="4" fill="#4a3527"/>
       <rect x="10" y="40" width="64" height="46" rx="3" fill="#fffdf8"/><path d="M22 63h40" stroke="#b98a2a" stroke-width="5"/></g>`;
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="320" height="240"><rect width="320" height="240" fill="#ece2cf"/>
      ${jar(18, '#e8b64a')}${jar(118, '#b4622f')}${jar(218, '#7a3441')}<rect y="190" width="320" height="50" fill="#94713f"/></svg>`;
    const content = await sharp(Buffer.from(svg)).png().toBuffer();
    await this.client.put(picturePath(this.item(code).id), content);
  }

  /** The next revision of the hive, frozen already and waiting for its day. */
  private async hiveWithAlternates(): Promise<void> {
    const mesh = await this.newItem('MESH-4', 'Floor mesh, 4 mm', { unit: 'm', bin: 'T2' });
    const hive = await this.definitionOf('HIVE-10');
    const params = { id: (await this.client.call(api.startRevision, { params: { id: hive }, body: {} })).id };
    const { revisions } = await this.client.call(api.definition, { params: { id: hive } });
    const draft = revisions.find(({ id }) => id === params.id);
    if (!draft) throw new Error('no draft');
    const lines = draft.lines.map((line): LineInput => {
      if (line.kind !== 'part') return line;
      if (line.item.code === 'MESH-3') return { ...line, alternates: [{ itemId: mesh.id, ratio: '1.1' }] };
      return line.item.code === 'SCREW-40' ? { ...line, quantity: '18' } : line;
    });
    const body = { version: draft.version, outputQuantity: draft.outputQuantity, lines };
    const { version } = await this.client.call(api.saveRevision, { params, body });
    await this.client.call(api.putInUse, { params, body: { version, from: this.later } });
  }

  private async kits(): Promise<void> {
    const gift = await this.newItem('GIFT-EVE', 'Winter evening gift', { source: 'made', price: '27.5' });
    const part = (code: string, quantity: string, alternates: readonly string[] = []) => ({
      ...this.part(code, quantity),
      alternates: alternates.map((other) => ({ itemId: this.item(other).id, ratio: '1' })),
    });
    const id = await this.define(gift, 'build', [
      part('TASTE-3', '1'),
      part('CANDLE-2', '1', ['BRUSH', 'TOOL-H']),
      part('BOX-TRIO', '1'),
    ]);
    await this.behave(id, { made: 'packed-per-order', paperwork: 'contents', onOrder: 'swaps' });
    await this.behave(await this.definitionOf('KIT-M'), { paperwork: 'contents', onOrder: 'quantities' });
  }

  private async rework(): Promise<void> {
    await this.define(this.item('SCALE-1'), 'rework', [
      this.part('SCALE-1', '1'),
      this.part('BATT-AA', '4'),
      { kind: 'labour', text: 'Clean, test and calibrate', basis: 'per-output', minutes: '18', rateId: 1 },
    ]);
    const extractor = await this.newItem('EXTR-4', 'Extractor, four frames, serviced here', { source: 'both' });
    const id = await this.define(extractor, 'record', [this.part('WIRE-ST', '1.2'), this.part('SCREW-40', '24')]);
    const { version } = await this.client.call(api.definition, { params: { id } });
    const fields = [
      { name: 'Owner', value: 'Larkfield Allotments' },
      { name: 'Serial number', value: 'EX4-0117' },
      { name: 'Under warranty until', value: 'May 2028' },
    ];
    await this.client.call(api.setDefinitionFields, { params: { id }, body: { version, fields } });
  }

  /** What an owner still has to put right: nothing in use, a part nobody priced, an archived one, a loss. */
  private async looseEnds(): Promise<void> {
    const disc = await this.newItem('DISC-E', 'Entrance disc', {});
    const felt = await this.newItem('FELT-R', 'Roof felt, old stock', { unit: 'm' });
    const nuc = await this.newItem('NUC-6', 'Nucleus box, six frames', { source: 'made', price: '59' });
    await this.define(
      nuc,
      'build',
      [this.part('DISC-E', '1'), this.part('FELT-R', '0.6'), this.part('FRM-W', '6')],
      false,
    );
    const spare = await this.newItem('FRM-5', 'Frames, five in a bag', { source: 'made', price: '12.5' });
    await this.define(spare, 'build', [this.part('FRM-W', '5')]);
    await this.client.call(api.archiveItem, {
      params: { id: felt.id },
      body: { archived: true, version: felt.version },
    });
    await this.client.call(api.saveView, {
      body: { list: 'items', name: 'To reorder', search: 'show=low&cols=homeBin.free.reorderPoint.latestCost' },
    });
    this.items.set(disc.code, disc);
  }

  private async define(item: Item, purpose: 'build' | 'rework' | 'record', lines: LineInput[], inUse = true) {
    const draft = await this.client.call(api.createDefinition, { body: { itemId: item.id, purpose } });
    const params = { id: draft.id };
    const body = { version: draft.version, outputQuantity: '1', lines };
    const { version } = await this.client.call(api.saveRevision, { params, body });
    if (inUse) await this.client.call(api.putInUse, { params, body: { version } });
    return draft.definitionId;
  }

  private async behave(
    id: number,
    change: Partial<{
      made: 'packed-per-order';
      paperwork: 'contents';
      onOrder: 'quantities' | 'swaps';
    }>,
  ): Promise<void> {
    const { behaviour, version } = await this.client.call(api.definition, { params: { id } });
    await this.client.call(api.setBehaviour, { params: { id }, body: { ...behaviour, ...change, version } });
  }

  private async newItem(
    code: string,
    name: string,
    more: { unit?: string; source?: Item['source']; price?: string; bin?: string },
  ): Promise<Item> {
    const units = await this.client.call(api.units, {});
    const item = await this.client.newItem({
      code,
      name,
      unitId: units.find((unit) => unit.code === (more.unit ?? 'each'))?.id ?? 1,
      source: more.source ?? 'bought',
      homeBinId: more.bin ? this.bin(more.bin) : null,
      sellPrice: more.price ?? null,
      reorderPoint: null,
      standardCost: null,
      note: '',
    });
    this.items.set(code, item);
    return item;
  }

  private async change(code: string, change: Partial<Input<typeof api.updateItem>['body']>): Promise<void> {
    const { id } = this.item(code);
    const item = await this.client.call(api.item, { params: { id } });
    await this.client.call(api.updateItem, {
      params: { id },
      body: { ...bodyOf(item), ...change, version: item.version },
    });
  }

  private part(code: string, quantity: string): Extract<LineInput, { kind: 'part' }> {
    return {
      kind: 'part',
      itemId: this.item(code).id,
      basis: 'per-output',
      quantity,
      waste: '0',
      taken: 'picked-first',
      share: null,
      comesBack: true,
      fromBinId: null,
      alternates: [],
    };
  }

  private async definitionOf(code: string): Promise<number> {
    const { definitionId } = await this.client.call(api.item, { params: { id: this.item(code).id } });
    if (definitionId === null) throw new Error(`${code} is not defined`);
    return definitionId;
  }

  private item(code: string): Item {
    const item = this.items.get(code);
    if (!item) throw new Error(`no item ${code}`);
    return item;
  }
}

/** An item as the form would send it back. */
const bodyOf = (item: ItemDetail) => ({
  code: item.code,
  name: item.name,
  unitId: item.unitId,
  source: item.source,
  tracking: item.tracking,
  lotOrder: item.lotOrder,
  lotFields: item.lotFields,
  returnDays: item.returnDays,
  serialPattern: item.serialPattern,
  taxFree: item.taxFree,
  barcode: item.barcode,
  homeBinId: item.homeBinId,
  sellPrice: item.sellPrice,
  reorderPoint: item.reorderPoint,
  standardCost: item.standardCost,
  note: item.note,
  packs: item.packs,
  suppliers: item.suppliers,
  fields: item.fields,
});
