import type { RepairDetail } from '@yosegi/contract';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { type Format, useFormat } from '../ui/format.ts';
import { Cell } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { dayOf } from '../ui/today.ts';
import { Letterhead } from './Letterhead.tsx';
import { PrintBar } from './PrintBar.tsx';
import { Paper } from './paper.tsx';

const Whole = styled.table`width: 100%; td { vertical-align: top; } td:first-child { width: 34mm; }`;
const Sign = styled.p`margin-top: 18mm; border-top: 1px solid #000; padding-top: 2mm; width: 70mm;`;

const titles = {
  'repair-in': 'Intake receipt',
  'repair-estimate': 'Estimate',
  'repair-report': 'Repair report',
} as const;
export type RepairPaperKind = keyof typeof titles;
export const isRepairPaper = (sheet: string): sheet is RepairPaperKind => Object.hasOwn(titles, sheet);

/** What a customer gets in hand for a repair: that it is here, what it would cost, and what was done. */
export function RepairPaper({ kind, id }: { kind: RepairPaperKind; id: number }) {
  const repair = useQuestion('repair', { params: { id } });
  return (
    <>
      <PrintBar to={`/build/repairs/${id}`} back="the repair" />
      <Answer of={repair}>{(data) => <Sheet kind={kind} repair={data} />}</Answer>
    </>
  );
}

function Sheet({ kind, repair }: { kind: RepairPaperKind; repair: RepairDetail }) {
  const format = useFormat();
  const customer = useQuestion('customer', { params: { id: repair.customerId } }).data;
  return (
    <Paper>
      <Letterhead number={repair.number} name={repair.customer} address={customer?.billing} />
      <h1>
        {titles[kind]} {repair.number}
      </h1>
      <Cell>
        <Tile code={repair.code} size={40} />
        <b>
          {repair.name}
          {repair.serial && `, serial ${repair.serial}`}
        </b>
      </Cell>
      <Whole>
        <tbody>
          {rowsOf(kind, repair, format).map(([name, value]) => (
            <tr key={name}>
              <td>
                <b>{name}</b>
              </td>
              <td>{value}</td>
            </tr>
          ))}
        </tbody>
      </Whole>
      {kind !== 'repair-report' && (
        <Sign>{kind === 'repair-in' ? `Received by ${repair.takenInBy}` : 'I agree: date, signature'}</Sign>
      )}
    </Paper>
  );
}

function rowsOf(kind: RepairPaperKind, repair: RepairDetail, format: Format): [string, string][] {
  const day = (iso: string) => format.longerDay(dayOf(iso));
  const common: [string, string][] = [
    ['Taken in', day(repair.takenInAt)],
    ['Problem', repair.fault],
    ...(repair.accessories ? [['Came with', repair.accessories] as [string, string]] : []),
  ];
  const asked = repair.warranty ? 'Under warranty: no charge' : null;
  if (kind === 'repair-in')
    return [
      ...common,
      ...(repair.wantedOn ? [['Wanted by', day(repair.wantedOn)] as [string, string]] : []),
      ['Price', asked ?? (repair.price === null ? 'to be estimated' : format.money(repair.price))],
    ];
  if (kind === 'repair-estimate')
    return [
      ...common,
      ['Estimated price', asked ?? (repair.estimate === null ? 'not estimated yet' : format.money(repair.estimate))],
    ];
  return [
    ...common,
    ['Work done', repair.declined === null ? repair.report || 'Repaired' : `Not repaired: ${repair.declined}`],
    ...(repair.givenBackAt ? [['Given back', day(repair.givenBackAt)] as [string, string]] : []),
    ['Price', asked ?? format.money(repair.charged ?? repair.price ?? '0')],
  ];
}
