import { dayAfter, daysBetween } from '@yosegi/core/days';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import styled from 'styled-components';
import { useFormat } from '../ui/format.ts';
import { VisuallyHidden } from '../ui/text.ts';

const Handle = styled.button`
  position: absolute; transform: translateX(-2px); border: 0; border-left: 2px solid var(--coming); background: var(--coming-wash); color: var(--ink); padding: 3px 7px 3px 6px;
  font: inherit; font-size: 12px; line-height: 1.25; text-align: left; white-space: nowrap; cursor: ew-resize; touch-action: none; border-radius: 0 3px 3px 0; min-height: 24px;
  &[data-right] { transform: translateX(calc(-100% + 2px)); border-left: 0; border-right: 2px solid var(--coming); border-radius: 3px 0 0 3px; }
  &:hover, &[data-dragged] { background: var(--coming-cloth); } b { display: block; }
  @media (pointer: coarse) { min-height: 44px; }
`;

interface Props {
  /** What comes, like "PO-0027 brings 14". */
  readonly name: string;
  readonly on: string;
  /** The day at the left edge, and how many days the width is. */
  readonly first: string;
  readonly days: number;
  readonly top: number;
  /** The day it is at the soonest. */
  readonly least: string;
  readonly isMoved: boolean;
  readonly onMove: (on: string) => void;
}

/** What comes, at its day: dragged to another one, or moved with the arrow keys. */
export function SupplyHandle({ name, on, first, days, top, least, isMoved, onMove }: Props) {
  const format = useFormat();
  const [dragged, setDragged] = useState<string | null>(null);
  const start = useRef<{ x: number; on: string; width: number } | null>(null);
  const shown = dragged ?? on;
  const offset = daysBetween(first, shown);
  const at = Math.min(1, Math.max(0, offset / days));
  const move = (to: string) => {
    const next = to < least ? least : to;
    if (next !== shown) onMove(next);
    return next;
  };
  const down = (event: PointerEvent<HTMLButtonElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    start.current = { x: event.clientX, on, width: event.currentTarget.parentElement?.clientWidth ?? 1 };
  };
  const drag = (event: PointerEvent<HTMLButtonElement>) => {
    if (!start.current) return;
    const { x, on: from, width } = start.current;
    const to = dayAfter(from, Math.round(((event.clientX - x) / width) * days));
    setDragged(move(to));
  };
  const up = () => {
    start.current = null;
    setDragged(null);
  };
  const keys = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1, PageDown: 7, PageUp: -7 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    move(dayAfter(on, step));
  };
  return (
    <Handle
      type="button"
      style={{ left: `${at * 100}%`, top }}
      {...(at > 0.8 ? { 'data-right': true } : {})}
      {...(dragged ? { 'data-dragged': true } : {})}
      onPointerDown={down}
      onPointerMove={drag}
      onPointerUp={up}
      onPointerCancel={up}
      onKeyDown={keys}
    >
      {name}
      <b>
        {format.day(shown)}
        {isMoved ? ', moved' : ''} <span aria-hidden>⇹</span>
      </b>
      <VisuallyHidden>The arrow keys move the day.</VisuallyHidden>
    </Handle>
  );
}
