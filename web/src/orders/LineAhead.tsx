import type { Kit, OrderLook } from '@yosegi/contract';
import styled from 'styled-components';
import { count, useFormat } from '../ui/format.ts';
import { Faint, Late } from '../ui/text.ts';
import { changesIn } from './kit.ts';
import { whenThere } from './words.ts';

/** What stands under the name of a line. */
export const Under = styled.div`display: flex; flex-wrap: wrap; gap: 0 14px; align-items: baseline; padding-left: 37px; font-size: 13px;`;

/** Which parts of a kit hold it up. */
export function WaitsFor({ ahead, itemId }: { ahead: OrderLook['lines'][number]; itemId: number }) {
  const format = useFormat();
  const parts = ahead.short.filter((part) => part.itemId !== itemId);
  if (parts.length === 0) return null;
  return (
    <Late>
      short of {parts.map((part) => `${format.quantity(part.quantity, part.unit, 3)} ${part.name}`).join(', ')}
    </Late>
  );
}

/** The day a line is there, in red where that is too late. */
export function WhenChip({ completeOn, wantedOn }: { completeOn: string | null; wantedOn: string }) {
  const format = useFormat();
  const isLate = completeOn === null || (wantedOn !== '' && completeOn > wantedOn);
  const words = whenThere(completeOn, format);
  if (isLate) return <Late>{words}</Late>;
  return completeOn === '' ? <b>{words}</b> : <Faint>{words}</Faint>;
}

/** What a packed kit is on this line, and whether it may change. */
export function kitWords(kit: Kit, isOpen: boolean): string {
  const changes = changesIn(kit);
  const what = changes > 0 ? `${count(changes, 'change')} in it` : count(kit.parts.length, 'part');
  return `packed for this order · ${what}${isOpen ? '' : kit.onOrder === 'locked' ? ', as they are' : ', may change'}`;
}
