import { describe, expect, it } from 'vitest';
import { company as around, faults, known, plan } from '../../test/world.ts';
import {
  alternatesOf,
  behaviourOf,
  definitionKey,
  type FileKindName,
  type FileRecord,
  fileKinds,
  type ImportWorld,
} from './index.ts';

const only = (kind: FileKindName, row: FileRecord, from?: ImportWorld) => faults(kind, [row], from)[0];
const long = (n: number) => 'x'.repeat(n);

describe('definitions', () => {
  const part = (more: FileRecord = {}): FileRecord => ({ product: 'BOX', component: 'NAIL', quantity: '2', ...more });
  it.each<[FileRecord, string]>([
    [part({ makes: '0' }), 'makes: not-positive {}'],
    [part({ waste: '1000.5' }), 'waste: out-of-range {"least":0,"most":1000}'],
    [part({ share: '-1' }), 'share: out-of-range {"least":0,"most":100}'],
    [part({ partsDiscount: '100.5' }), 'partsDiscount: out-of-range {"least":0,"most":100}'],
    [part({ alternates: 'NAIL' }), 'alternates: alternate-is-part {}'],
    [part({ alternates: 'BOX' }), 'alternates: alternate-is-product {}'],
    [part({ alternates: 'PIN; SET; pin x 2' }), 'alternates: alternate-twice {}'],
    [part({ alternates: 'PIN PIN' }), 'alternates: unknown-item-code {"typed":""}'],
    [part({ from: 'nowhere' }), 'from: unknown-bin-code {"typed":"nowhere"}'],
    [part({ text: long(1001) }), 'text: text-too-long {"most":1000,"is":1001}'],
    [part({ component: '', rate: long(50) }), `rate: unknown-rate {"typed":"${long(40)}","known":["Bench hour"]}`],
    [part({ kind: 'part', component: '' }), 'component: cell-missing {}'],
    [part({ quantity: '' }), 'quantity: cell-missing {}'],
    [{ product: 'BOX', kind: 'labour', quantity: '5' }, 'rate: cell-missing {}'],
    [{ product: 'BOX', kind: 'charge', quantity: '5' }, 'text: cell-missing {}'],
    [{ product: 'BOX', kind: 'charge', text: 'Fee' }, 'quantity: cell-missing {}'],
    [{ product: 'BOX', kind: 'note' }, 'text: cell-missing {}'],
    [
      { product: 'BOX', kind: 'labour', rate: 'Bench hour', quantity: '1.234' },
      'quantity: too-many-decimals {"typed":"1.234","decimals":2}',
    ],
    [{ product: 'BOX', text: 'Only a note' }, 'product: no-lines {}'],
    [{ product: 'BOX', text: 'Fee', quantity: '3' }, 'product: no-lines {}'],
    [part({ component: 'BOX' }), 'component: contains-itself {"path":["BOX","BOX"]}'],
    [part({ purpose: 'rework' }), 'product: rework-without-itself {}'],
    [part({ kind: 'gift' }), 'kind: word-unknown {"typed":"gift","known":["part","labour","charge","note"]}'],
  ])('%j', (cells, fault) => {
    expect(only('definitions', cells)).toEqual([fault]);
  });

  it('are kept line by line in our own words', () => {
    const rows = [
      part({
        makes: '5',
        waste: '4.5 %',
        share: '100 %',
        alternates: ' PIN x 1.5 ;SET; ',
        from: 'main/b1',
        comesBack: '',
      }),
      {
        component: 'PIN',
        quantity: '3',
        comesBack: 'N',
        share: '7',
        waste: '',
        taken: 'when finished',
        text: 'ignored',
      },
      { rate: 'BENCH HOUR', quantity: '7.5', text: 'Glue', waste: '9', counted: 'Per  Run' },
      { text: 'Stamp', quantity: '1.25' },
      { text: 'Mind the grain', counted: 'per run', quantity: '' },
    ].map((cells) => ({ product: '', ...cells }) as FileRecord);
    const { changes, fates } = plan('definitions', rows, around());
    expect(fates.flatMap((fate) => fate.faults)).toEqual([]);
    const said = ({
      kind,
      component,
      quantity,
      waste,
      share,
      taken,
      comesBack,
      alternates,
      rate,
      text,
      counted,
      from,
    }: FileRecord) =>
      [kind, component, quantity, waste, share, taken, comesBack, alternates, rate, text, counted, from].join('|');
    expect(changes[0]?.rows.map(said)).toEqual([
      'part|NAIL|2|4.5|100|picked first|yes|PIN x 1.5; SET|||per output|MAIN/B1',
      'part|PIN|3|0||when finished|no||||per output|',
      'labour||7.5|0|||||Bench hour|Glue|per run|',
      'charge||1.25|0||||||Stamp|per output|',
      'note|||0||||||Mind the grain|per output|',
    ]);
    expect(changes[0]?.rows.every(({ makes, product }) => makes === '5' && product === 'BOX')).toBe(true);
    expect(alternatesOf(changes[0]?.rows[0] ?? {})).toEqual([
      ['PIN', '1.5'],
      ['SET', '1'],
    ]);
    expect(alternatesOf({})).toEqual([]);
  });

  it('are changed where a line is, also when there are more or fewer', () => {
    const rows = [part(), part({ component: 'PIN' }), { product: 'BOX', rate: 'Bench hour', quantity: '5' }];
    const before = plan('definitions', rows, around()).changes[0]?.rows ?? [];
    const fate = (next: FileRecord[]) =>
      plan('definitions', next, around({ existing: new Map([[definitionKey('BOX', 'build'), before]]) })).fates.map(
        (one) => [one.fate, ...one.changes].join(' '),
      );
    expect(fate(rows)).toEqual(['same', 'same', 'same']);
    expect(fate(rows.slice(0, 2))).toEqual(['changed', 'changed']);
    expect(fate([...rows, { product: 'BOX', text: 'A note' }])).toEqual(['changed', 'changed', 'changed', 'changed']);
    expect(fate([part(), part({ component: 'PIN', quantity: '3' }), rows[2] as FileRecord])).toEqual([
      'changed',
      'changed quantity',
      'changed',
    ]);
  });

  it('may be of labour alone, and of waste with or without a space before its sign', () => {
    expect(only('definitions', { product: 'BOX', rate: 'Bench hour', quantity: '5' })).toEqual([]);
    const waste = (cell: string) => plan('definitions', [part({ waste: cell })], around()).changes[0]?.rows[0]?.waste;
    expect(['4%', '4 %', '4.5  %', '4'].map(waste)).toEqual(['4', '4', '4.5', '4']);
    expect(only('definitions', part({ waste: '4%5' }))?.[0]).toContain('waste: not-a-number');
    expect(
      only(
        'definitions',
        part({ makes: '', from: '', waste: '', share: '', partsDiscount: '', alternates: '', rate: '' }),
      ),
    ).toEqual([]);
  });

  it('have their faults told at the very line, however far down', () => {
    const many = Array.from({ length: 12 }, () => part({ quantity: '1' }));
    const told = faults('definitions', [...many, part({ component: 'PIN', makes: '3' })]);
    expect(told.slice(0, 12).flat()).toEqual([]);
    expect(told[12]).toEqual(['makes: shared-differs {"first":"1"}']);
  });

  it('that are only recorded tie nothing together', () => {
    const rows = [part({ component: 'SET' }), { product: 'SET', component: 'BOX', quantity: '1', purpose: 'record' }];
    expect(faults('definitions', rows).flat()).toEqual([]);
    const packed = [
      part({ made: 'packed per order' }),
      { product: 'SET', component: 'PIN', quantity: '1', purpose: 'record' },
    ];
    expect(faults('definitions', packed).flat()).toEqual([]);
  });

  it('take up to 200 lines, and the shares of what comes back', () => {
    const many = (n: number) => Array.from({ length: n }, () => part({ quantity: '1' }));
    expect(faults('definitions', many(200)).flat()).toEqual([]);
    expect(faults('definitions', many(201)).flat()).toEqual(['product: too-many-lines {"most":200}']);
    const shares = (a: string, b: string, comesBack = 'yes') =>
      faults('definitions', [part({ share: a }), part({ component: 'PIN', share: b, comesBack })]).flat();
    expect(shares('60', '40')).toEqual([]);
    expect(shares('60', '30')[0]).toContain('share: shares-under');
    // Nothing else comes back to take the rest.
    expect(shares('60', '', 'no')[0]).toContain('share: shares-under');
    // What stays gone has no share, whatever the file says.
    expect(shares('100', '50', 'no')).toEqual([]);
  });

  it('differ in nothing that all lines of a product share', () => {
    const rows = [part({ makes: '2' }), part({ component: 'PIN', makes: '3' })];
    expect(faults('definitions', rows)[1]).toEqual(['makes: shared-differs {"first":"2"}']);
    expect(faults('definitions', [part({ makes: '2' }), part({ component: 'PIN', makes: '' })]).flat()).toEqual([]);
  });

  it('leave a draft alone that somebody is working on, but not where there is none yet', () => {
    const from = (more: object, has: boolean) =>
      around({
        known: [known('NAIL'), known('BOX', more)],
        ...(has
          ? {
              existing: new Map([
                [definitionKey('BOX', 'build'), [{ ...fileKinds.definitions.defaults, product: 'BOX' }]],
              ]),
            }
          : {}),
      });
    expect(only('definitions', part(), from({ drafts: ['build'] }, true))).toEqual(['product: draft-exists {}']);
    expect(only('definitions', part(), from({ drafts: ['rework'] }, true))).toEqual([]);
    expect(only('definitions', part(), from({ drafts: ['build'] }, false))).toEqual([]);
  });

  it('are in use only with what can be had', () => {
    const from = around({ known: [known('NAIL'), known('OLD', { archived: true }), known('BOX')] });
    const rows = (state: string) => [part({ state }), part({ component: 'OLD', state })];
    expect(faults('definitions', rows('in use'), from)).toEqual([[], ['component: item-archived {"name":"The OLD"}']]);
    expect(faults('definitions', rows('draft'), from)).toEqual([[], []]);
  });

  it('never go in a circle, and of what is only recorded none is a part', () => {
    const books = (parts: [string, string[]][]) => around({ parts: new Map(parts) });
    const circle = [part({ component: 'PIN' }), part({ component: 'SET' })];
    expect(faults('definitions', circle, books([['set|build', ['box']]]))).toEqual([
      [],
      ['component: contains-itself {"path":["BOX","SET","BOX"]}'],
    ]);
    expect(faults('definitions', circle, books([['set|record', ['box']]]))).toEqual([[], []]);
    expect(faults('definitions', circle, books([['set|rework', ['box']]]))).toEqual([[], []]);
    expect(only('definitions', part({ component: 'BOX', purpose: 'rework' }))).toEqual([]);
    expect(only('definitions', part({ component: 'BOX', purpose: 'record' }))).toEqual([]);
  });

  it('contradict neither their switches nor what is there of them', () => {
    const from = (more: object, parts: [string, string[]][] = []) =>
      around({ known: [known('NAIL'), known('PIN'), known('BOX', more)], parts: new Map(parts) });
    const packed = (more: object, parts: [string, string[]][] = [], cells: FileRecord = {}) =>
      only('definitions', part({ made: 'packed per order', ...cells }), from(more, parts))?.map(
        (one) => one.split(' ')[1],
      );
    expect(packed({})).toEqual([]);
    expect(packed({ hasStock: true })).toEqual(['kit-has-stock']);
    expect(packed({ tracking: 'lot' })).toEqual(['kit-is-tracked']);
    expect(packed({ openBuilds: ['B-1'] })).toEqual(['kit-has-builds']);
    expect(packed({}, [['set|build', ['box']]])).toEqual(['kit-is-part']);
    expect(packed({}, [['box|record', ['box']]])).toEqual(['kit-is-part']);
    const swaps = (cells: FileRecord) =>
      only('definitions', part({ onOrder: 'swaps listed', ...cells }), from({}))?.map((one) => one.split(' ')[1]);
    expect(swaps({})).toEqual(['kit-no-alternates']);
    expect(swaps({ alternates: 'PIN' })).toEqual([]);
    expect(
      faults(
        'definitions',
        [part({ onOrder: 'swaps listed', alternates: 'PIN' }), part({ component: 'PIN' })],
        from({}),
      ).flat(),
    ).toEqual([]);
  });

  it('are not made of what is packed per order, in the file or in the books', () => {
    const set = { product: 'SET', component: 'PIN', quantity: '1', made: 'packed per order' };
    const use = part({ component: 'SET' });
    expect(faults('definitions', [use, { ...set, made: 'ahead' }]).flat()).toEqual([]);
    expect(
      faults(
        'definitions',
        [part({ component: 'PIN' }), use],
        around({ existing: new Map([[definitionKey('SET', 'build'), [set]]]) }),
      ),
    ).toEqual([[], ['component: part-is-packed {"part":"SET"}']]);
  });

  it('say in a file’s words what a kit does', () => {
    const usual = {
      made: 'ahead',
      paperwork: 'one-line',
      onOrder: 'locked',
      swapFor: 'listed',
      price: 'own',
      discount: 0,
    };
    expect(behaviourOf({})).toEqual(usual);
    expect(
      behaviourOf({
        made: 'packed per order',
        paperwork: 'contents',
        onOrder: 'swaps anything',
        partsDiscount: '12.5',
      }),
    ).toEqual({
      made: 'packed-per-order',
      paperwork: 'contents',
      onOrder: 'swaps',
      swapFor: 'anything',
      price: 'parts',
      discount: 12_500_000,
    });
    expect(behaviourOf({ onOrder: 'swaps listed' })).toMatchObject({ onOrder: 'swaps', swapFor: 'listed' });
    expect(behaviourOf({ onOrder: 'quantities', partsDiscount: '0' })).toMatchObject({
      onOrder: 'quantities',
      price: 'parts',
      discount: 0,
    });
  });
});
