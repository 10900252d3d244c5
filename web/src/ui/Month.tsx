import { parseDate } from '@internationalized/date';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { Calendar, CalendarCell, CalendarGrid, CalendarHeading } from 'react-aria-components';
import styled from 'styled-components';
import { IconButton } from './IconButton.ts';

const Sheet = styled(Calendar)`
  header { display: flex; align-items: center; justify-content: space-between; margin-bottom: 6px; }
  h2 { font-size: 16px; }
  table { width: auto; } th { font-size: 12px; font-weight: 500; color: var(--ink-2); padding: 4px; } td { padding: 1px; }
`;
const Day = styled(CalendarCell)`
  width: 34px; height: 32px; display: grid; place-items: center; border-radius: 3px; cursor: pointer; outline: none;
  &[data-hovered] { background: var(--birch); }
  &[data-focus-visible] { outline: 2px solid var(--indigo); }
  &[data-selected] { background: var(--walnut); color: var(--on-dark); }
  &[data-today] { font-weight: 700; text-decoration: underline; text-underline-offset: 3px; }
  &[data-outside-month] { color: var(--ink-3); }
  &[data-disabled] { opacity: 0.4; }
`;

/** A calendar from which a day is picked, by mouse or by arrows. */
export function Month({
  label,
  day,
  onDay,
}: {
  label: string;
  /** An ISO day; null where none is chosen. */
  day: string | null;
  onDay: (day: string) => void;
}) {
  return (
    <Sheet
      aria-label={label}
      autoFocus
      value={day === null ? null : parseDate(day)}
      onChange={(next) => onDay(next.toString())}
    >
      <header>
        <IconButton slot="previous">
          <ChevronLeft size={16} aria-hidden />
        </IconButton>
        <CalendarHeading />
        <IconButton slot="next">
          <ChevronRight size={16} aria-hidden />
        </IconButton>
      </header>
      <CalendarGrid>{(date) => <Day date={date} />}</CalendarGrid>
    </Sheet>
  );
}
