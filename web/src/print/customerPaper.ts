import type { Order, Shipment } from '@yosegi/contract';
import { LATER } from '@yosegi/core/days';

/** Papers that go to a customer. */
export const paperKinds = ['quote', 'confirmation', 'packing-slip'] as const;
export type PaperKind = (typeof paperKinds)[number];

export const paperTitles: Record<PaperKind, string> = {
  quote: 'Quote',
  confirmation: 'Order confirmation',
  'packing-slip': 'Packing slip',
};

/** One thing in a kit, as the customer sees it. */
export interface PaperPart {
  readonly code: string;
  readonly name: string;
  readonly quantity: string;
  readonly unit: string;
  readonly decimals: number;
  /** What it stands in for, or the lots and serials that were sent. */
  readonly note: string;
}

export interface PaperLine extends PaperPart {
  /** The line of the order. */
  readonly id: number;
  readonly price: string;
  readonly worth: string;
  /** The day it is with the customer: '' for goods that could leave today, null where none is known. */
  readonly day: string | null;
  /** The day it was wanted; null where none was said. */
  readonly wantedOn: string | null;
  /** Whether any of it has still to leave. */
  readonly isOpen: boolean;
  /** What is in a kit; empty where it is one line to the customer. */
  readonly parts: readonly PaperPart[];
}

/**
 * What a customer's paper says of the lines of an order.
 * @param number how a plain decimal is written
 */
export const linesOfOrder = (order: Order, number: (text: string) => string = (text) => text): PaperLine[] =>
  order.lines
    .filter((line) => line.quantity !== line.dropped)
    .map((line) => ({
      id: line.id,
      code: line.code,
      name: line.name,
      quantity: line.quantity,
      unit: line.unit,
      decimals: line.decimals,
      note: line.discount === '0' ? '' : `${number(line.discount)}% off`,
      price: line.listPrice,
      worth: line.amount,
      day: line.arrivesOn !== null && line.arrivesOn < LATER ? line.arrivesOn : null,
      wantedOn: line.wantedOn ?? order.wantedOn,
      isOpen: line.open !== '0',
      parts:
        line.revision === null
          ? []
          : line.parts
              // A kit that is one line to the customer still says what was changed for them.
              .filter((part) => isChanged(part) || (!line.hidden && part.required !== '0'))
              .map((part) => ({
                code: part.item.code,
                name: part.item.name,
                quantity: part.required,
                unit: part.item.unit,
                decimals: part.item.decimals,
                note: changeWords(part, number),
              })),
    }));

type Part = Order['lines'][number]['parts'][number];

/** Whether a part of a kit is otherwise on this order than the kit usually has it. */
const isChanged = ({ instead, required, usual }: Part) => instead !== null || required !== usual;

function changeWords({ instead, required, usual }: Part, number: (text: string) => string): string {
  if (instead !== null) return `in place of ${instead}`;
  if (required === usual) return '';
  return required === '0' ? 'left out' : `changed from ${number(usual)}`;
}

/** What a packing slip says of what left: serials and lots always, a kit's contents as its switch has it. */
export const linesOfShipment = (shipment: Shipment): PaperLine[] =>
  shipment.lines.map((line) => {
    const pieces = line.isKit ? [] : line.parts.flatMap((part) => part.pieces);
    return {
      id: line.lineId,
      code: line.code,
      name: line.name,
      quantity: line.quantity,
      unit: line.unit,
      decimals: line.decimals,
      note: pieces.join(', '),
      price: line.price,
      worth: '0',
      day: null,
      wantedOn: null,
      isOpen: false,
      parts:
        !line.isKit || line.hidden
          ? []
          : line.parts.map(({ pieces: own, isSerial: _, ...part }) => ({ ...part, note: own.join(', ') })),
    };
  });
