import type { Order, Shipment } from '@yosegi/contract';
import { LATER } from '@yosegi/core/days';
import { describe, expect, it } from 'vitest';
import { linesOfOrder, linesOfShipment } from './customerPaper.ts';

const part = (code: string, more: object = {}) => ({
  item: { code, name: `The ${code}`, unit: 'each', decimals: 0 },
  required: '2',
  usual: '2',
  instead: null,
  ...more,
});
const line = (more: object) => ({
  code: 'KIT',
  name: 'A kit',
  quantity: '1',
  dropped: '0',
  listPrice: '10',
  discount: '10',
  amount: '9',
  arrivesOn: '',
  open: '1',
  wantedOn: null,
  revision: 1,
  hidden: false,
  parts: [part('JAR'), part('LID', { instead: 'The CORK' }), part('BOW', { required: '0', usual: '0' })],
  ...more,
});
const order = (...lines: object[]) => ({ wantedOn: '2026-12-12', lines }) as unknown as Order;

describe('a paper for a customer', () => {
  it('shows what is in a kit, swaps named, unless it is one line to them', () => {
    const [shown, hidden] = linesOfOrder(order(line({}), line({ hidden: true })));
    expect(shown?.parts.map(({ code, note }) => [code, note])).toEqual([
      ['JAR', ''],
      ['LID', 'in place of The CORK'],
    ]);
    // What was changed for them is said all the same.
    expect(hidden?.parts.map(({ code }) => code)).toEqual(['LID']);
  });

  it('says what was changed of a kit for this order', () => {
    const parts = [part('JAR', { required: '3' }), part('LID', { required: '0' }), part('BOW')];
    const [shown, hidden] = linesOfOrder(order(line({ parts }), line({ parts, hidden: true })));
    const notes = [
      ['JAR', 'changed from 2'],
      ['LID', 'left out'],
    ];
    expect(shown?.parts.map(({ code, note }) => [code, note])).toEqual([...notes, ['BOW', '']]);
    expect(hidden?.parts.map(({ code, note }) => [code, note])).toEqual(notes);
  });

  it('shows the price before what is taken off, how much that is, and what the line comes to', () => {
    const [own, plain] = linesOfOrder(order(line({}), line({ discount: '0' })));
    expect([own?.price, own?.note, own?.worth, plain?.note]).toEqual(['10', '10% off', '9', '']);
  });

  it('says the day that is known and none that nobody promised, and leaves out what was given up', () => {
    const days = linesOfOrder(
      order(
        line({ arrivesOn: '2026-12-09' }),
        line({}),
        line({ arrivesOn: null, wantedOn: '2026-12-24' }),
        line({ arrivesOn: LATER }),
        line({ dropped: '1' }),
      ),
    ).map(({ day, wantedOn }) => [day, wantedOn]);
    expect(days).toEqual([
      ['2026-12-09', '2026-12-12'],
      ['', '2026-12-12'],
      [null, '2026-12-24'],
      [null, '2026-12-12'],
    ]);
  });

  it('says of what left its serials and lots, in the kit or on the line', () => {
    const left = (isKit: boolean, hidden = false) => ({
      ...line({ isKit, hidden }),
      parts: [{ code: 'BELL', name: 'Bell', unit: 'each', decimals: 0, quantity: '2', pieces: ['B1', 'B2'] }],
    });
    const slip = linesOfShipment({ lines: [left(false), left(true), left(true, true)] } as unknown as Shipment);
    expect(slip.map(({ note, parts }) => [note, parts.map((own) => own.note)])).toEqual([
      ['B1, B2', []],
      ['', ['B1, B2']],
      ['', []],
    ]);
  });
});
