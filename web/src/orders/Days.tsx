import styled from 'styled-components';
import { useFormat } from '../ui/format.ts';
import { textures } from '../ui/textures.ts';
import { dayNumber, type Span } from './span.ts';

const Track = styled.div`
  position: relative; forced-color-adjust: none; height: 24px; min-width: 180px; background: repeating-linear-gradient(90deg, var(--rail) 0 1px, transparent 1px var(--day)); overflow: hidden;
`;
const Bar = styled.i<{ $of: 'free' | 'coming' | 'short' }>`
  position: absolute; top: 4px; bottom: 4px; display: block; border-radius: 1px;
  ${({ $of }) => ({ free: textures.free, coming: textures.coming, short: textures.short })[$of]}
`;
const Words = styled.b`position: absolute; top: 3px; font-size: 12px; white-space: nowrap; padding: 0 5px; background: var(--sheet); color: var(--ink);`;
const Due = styled.i`position: absolute; top: 0; bottom: 0; width: 2px; background: var(--ink);`;
const Axis = styled.div`position: relative; height: 16px; font-size: 11.5px; color: var(--ink-3); span { position: absolute; white-space: nowrap; }`;

interface Props {
  readonly span: Span;
  /** Whether some of it is here, and the day the rest is: '' now, null when nobody knows. */
  readonly some: boolean;
  readonly completeOn: string | null;
  readonly wantedOn: string | null;
  readonly words: string;
}

/** When a line is there, drawn over the days: solid here, hatched on its way, dashed unknown, a tick the day it is wanted. */
export function Days({ span, some, completeOn, wantedOn, words }: Props) {
  const at = (day: string) => Math.min(100, Math.max(0, ((dayNumber(day) - span.from) / span.days) * 100));
  const today = 100 / span.days;
  const end = completeOn === null ? 100 : completeOn === '' ? today : Math.max(today, at(completeOn) + today);
  const start = some || completeOn === '' ? today : 0;
  const label = end > 60 ? { right: `${Math.max(0, 100 - end)}%` } : { left: `${end}%` };
  return (
    <Track style={{ ['--day' as string]: `${today}%` }} role="img" aria-label={words}>
      {start > 0 && <Bar $of="free" style={{ left: 0, width: `${start}%` }} />}
      {completeOn !== '' && (
        <Bar $of={completeOn === null ? 'short' : 'coming'} style={{ left: `${start}%`, width: `${end - start}%` }} />
      )}
      {wantedOn !== null && dayNumber(wantedOn) - span.from <= span.days && (
        <Due style={{ left: `calc(${Math.min(100, at(wantedOn) + today)}% - 2px)` }} />
      )}
      <Words style={label}>{words}</Words>
    </Track>
  );
}

/** The days over the lines. */
export function DaysAxis({ span }: { span: Span }) {
  const format = useFormat();
  const step = Math.max(1, Math.ceil(span.days / 6));
  const marks = Array.from({ length: Math.ceil(span.days / step) }, (_, index) => index * step);
  return (
    <Axis aria-hidden>
      {marks.map((day) => (
        <span key={day} style={{ left: `${(day / span.days) * 100}%` }}>
          {format.dayOfMonth(span.from + day)}
        </span>
      ))}
    </Axis>
  );
}
