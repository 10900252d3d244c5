import { daysBetween } from '@yosegi/core/days';
import { Hourglass, OctagonX } from 'lucide-react';
import { Chip } from '../ui/Chip.tsx';
import { useFormat } from '../ui/format.ts';
import { OneLine } from '../ui/text.ts';
import { today } from '../ui/today.ts';

/** Within so many days a best-before day asks to be looked at. */
export const SOON_DAYS = 30;

/** Whole days from today to an ISO day; below zero once it has passed. */
export const daysUntil = (day: string) => daysBetween(today(), day);

/** A best-before day, with a sign of its own shape once it is near or past; nothing for what keeps. */
export function BestBefore({ day }: { day: string | null }) {
  const format = useFormat();
  if (day === null) return null;
  const left = daysUntil(day);
  const text = format.longerDay(day);
  if (left < 0)
    return (
      <Chip $tone="short">
        <OctagonX size={14} aria-hidden /> past {text}
      </Chip>
    );
  if (left <= SOON_DAYS)
    return (
      <Chip $tone="coming">
        <Hourglass size={14} aria-hidden /> {left === 0 ? 'today' : `${left} d left`} · {text}
      </Chip>
    );
  return <OneLine>best before {text}</OneLine>;
}
