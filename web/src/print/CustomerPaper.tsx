import type { Company, Order, Shipment } from '@yosegi/contract';
import { LOGO_PATH } from '@yosegi/contract';
import { formatDecimal, readForText, sumForText } from '@yosegi/core/number';
import styled, { createGlobalStyle } from 'styled-components';
import { type Format, negated, useFormat } from '../ui/format.ts';
import { Cell } from '../ui/layout.ts';
import { Tile } from '../ui/Tile.tsx';
import { dayOf } from '../ui/today.ts';
import {
  linesOfOrder,
  linesOfShipment,
  type PaperKind,
  type PaperLine,
  type PaperPart,
  paperTitles,
} from './customerPaper.ts';
import { Barcode, Paper, Typed } from './paper.tsx';

const widths = { A4: '210mm', Letter: '216mm' } as const;
const heights = { A4: '297mm', Letter: '279mm' } as const;

/** The sheet that the printer is asked for. */
const PageSize = createGlobalStyle<{
  $size: 'A4' | 'Letter';
}>`@page { size: ${({ $size }) => ($size === 'A4' ? 'A4' : 'letter')}; margin: 14mm; }`;
const Sized = styled(Paper)<{ $size: 'A4' | 'Letter' }>`
  width: min(${({ $size }) => widths[$size]}, 100%); min-height: ${({ $size }) => heights[$size]}; display: flex; flex-direction: column; padding: 14mm;
  table { width: 100%; } td small { color: #444; } tr[data-part] td { border-bottom: 0; height: auto; padding-top: 1pt; padding-bottom: 1pt; }
  @media print { min-height: 0; }
`;
const Top = styled.header`display: flex; justify-content: space-between; gap: 10mm; align-items: flex-start;`;
const Addressed = styled(Top)`margin: 10mm 0 8mm;`;
const LogoPicture = styled.img`max-height: 22mm; max-width: 70mm; display: block; margin-bottom: 3mm;`;
const Name = styled.b`font-size: 13pt;`;
/** What is in a kit stands beneath it. */
const Contained = styled.td<{ $mm: number }>`padding-left: ${({ $mm }) => $mm}mm !important;`;
const AtFoot = styled(Typed)`margin-top: auto; padding-top: 8mm; border-top: 0.5pt solid #888;`;
const Facts = styled.dl`
  display: grid; grid-template-columns: auto auto; gap: 1mm 5mm; margin: 0; font-size: 10pt; dt { color: #444; } dd { margin: 0; font-weight: 600; }
`;

interface Props {
  readonly kind: PaperKind;
  readonly order: Order;
  readonly shipment: Shipment | null;
  readonly company: Company;
  /** How it looks, also while that is being changed. */
  readonly look: Company['papers'];
  readonly address: string;
}

/** When a line is wanted, on a quote; else the day it is promised for, and never one that nobody promised. */
function dayWords({ day, wantedOn, isOpen }: PaperLine, kind: PaperKind, format: Format): string {
  if (kind === 'quote') return wantedOn ? format.longerDay(wantedOn) : '';
  if (!isOpen) return 'shipped';
  if (day === null) return 'to be confirmed';
  return day === '' ? 'ready to ship' : format.longerDay(day);
}

/** A quote, an order confirmation or a packing slip, as the customer gets it. */
export function CustomerPaper({ kind, order, shipment, company, look, address }: Props) {
  const format = useFormat();
  const isSlip = kind === 'packing-slip';
  const lines = isSlip && shipment ? linesOfShipment(shipment) : linesOfOrder(order, (text) => format.number(text));
  const has = (column: Company['papers']['columns'][number]) => look.columns.includes(column);
  const withPrice = has('price') && !isSlip;
  const withDay = has('day') && !isSlip;
  const sums: readonly (readonly [string, string])[] = [
    ...(order.takenOff === '0'
      ? []
      : [[`Discount ${format.percent(order.orderDiscount)}`, negated(order.takenOff)] as const]),
    ...(order.freight === '0' ? [] : [['Freight', order.freight] as const]),
  ];
  const total = formatDecimal(
    sumForText([...lines.map((line) => line.worth), ...sums.map(([, sum]) => sum)].map(readForText)),
  );
  const span = 2 + (withDay ? 1 : 0) + (withPrice ? 1 : 0);
  const amount = ({ quantity, unit, decimals }: PaperPart) => format.quantity(quantity, unit, decimals);
  return (
    <Sized $size={look.size}>
      <PageSize $size={look.size} />
      <Top>
        <div>
          {look.logo && <LogoPicture src={`${LOGO_PATH}?v=${look.logo}`} alt={company.name} />}
          <Name>{company.name}</Name>
          <Typed $small>{[company.address, company.email].filter(Boolean).join('\n')}</Typed>
        </div>
        <Barcode text={isSlip && shipment ? shipment.number : order.number} />
      </Top>
      <Addressed>
        <Typed>
          <b>{order.customer}</b>
          {address && `\n${address}`}
        </Typed>
        <Facts>
          <dt>Order</dt>
          <dd>{order.number}</dd>
          {order.reference && (
            <>
              <dt>Your reference</dt>
              <dd>{order.reference}</dd>
            </>
          )}
          <dt>Date</dt>
          <dd>{format.longerDay(dayOf(isSlip && shipment ? shipment.at : order.at))}</dd>
          {!isSlip && order.wantedOn && (
            <>
              <dt>Wanted on</dt>
              <dd>{format.longerDay(order.wantedOn)}</dd>
            </>
          )}
          {isSlip && shipment?.carrier && (
            <>
              <dt>Sent by</dt>
              <dd>{[shipment.carrier, shipment.tracking].filter(Boolean).join(', ')}</dd>
            </>
          )}
        </Facts>
      </Addressed>
      <h1>
        {paperTitles[kind]} {isSlip && shipment ? shipment.number : order.number}
      </h1>
      {look.head && <Typed $top={3}>{look.head}</Typed>}
      {order.remark && <Typed $top={3}>{order.remark}</Typed>}
      <table>
        <thead>
          <tr>
            <th>Item</th>
            <th className="num">Quantity</th>
            {withDay && <th>{kind === 'quote' ? 'Wanted' : 'Expected'}</th>}
            {withPrice && <th className="num">Price</th>}
            {withPrice && <th className="num">Amount</th>}
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => [
            <tr key={line.id}>
              <td>
                <Cell>
                  {has('tile') && <Tile code={line.code} size={26} />}
                  <span>
                    <b>{line.name}</b>
                    {(has('code') || line.note) && (
                      <>
                        <br />
                        <small>{[has('code') && line.code, line.note].filter(Boolean).join(' · ')}</small>
                      </>
                    )}
                  </span>
                </Cell>
              </td>
              <td className="num">{amount(line)}</td>
              {withDay && <td>{dayWords(line, kind, format)}</td>}
              {withPrice && <td className="num">{format.price(line.price)}</td>}
              {withPrice && <td className="num">{format.money(line.worth)}</td>}
            </tr>,
            ...line.parts.map((part) => (
              <tr key={`${line.id}.${part.code}`} data-part>
                <Contained $mm={has('tile') ? 14 : 5}>
                  <small>
                    {part.name}
                    {has('code') && ` · ${part.code}`}
                    {part.note && ` · ${part.note}`}
                  </small>
                </Contained>
                <td className="num">
                  <small>{amount(part)}</small>
                </td>
                {withDay && <td />}
                {withPrice && <td />}
                {withPrice && <td />}
              </tr>
            )),
          ])}
          {withPrice &&
            sums.map(([name, sum]) => (
              <tr key={name}>
                <td colSpan={span} className="num">
                  {name}
                </td>
                <td className="num">{format.money(sum)}</td>
              </tr>
            ))}
          {withPrice && (
            <tr>
              <td colSpan={span} className="num">
                <b>Total</b>
              </td>
              <td className="num">
                <b>{format.money(total)}</b>
              </td>
            </tr>
          )}
        </tbody>
      </table>
      {isSlip && shipment && shipment.parcels.length > 0 && (
        <Typed $top={4}>Packed in {shipment.parcels.join(', ')}.</Typed>
      )}
      {isSlip && shipment?.remark && <Typed $top={4}>{shipment.remark}</Typed>}
      {look.foot && <AtFoot $small>{look.foot}</AtFoot>}
    </Sized>
  );
}
