import { parseDate } from '@internationalized/date';
import { dayWritingOf, isDay, readDay, writeDay } from '@yosegi/core/days';
import { CalendarDays, ChevronLeft, ChevronRight } from 'lucide-react';
import { type KeyboardEvent, useMemo, useState } from 'react';
import {
  Button,
  Calendar,
  CalendarCell,
  CalendarGrid,
  CalendarHeading,
  Dialog,
  DialogTrigger,
  Input,
  Popover,
  TextField,
} from 'react-aria-components';
import styled from 'styled-components';
import { column, drop } from './box.ts';
import { Box, FieldLabel, Wrong } from './Field.tsx';
import { useLocale } from './format.ts';
import { today } from './today.ts';

const Wrap = styled(TextField)`${column}`;
const Open = styled(Button)`
  border: 0; background: none; padding: 4px; margin-right: -4px; min-width: 26px; min-height: 26px; color: var(--ink-2); cursor: pointer; display: grid; place-items: center;
  &[data-focus-visible] { outline: 2px solid var(--indigo); outline-offset: -2px; }
`;
const Drop = styled(Popover)`${drop} max-height: none; padding: 12px;`;
const Month = styled(Calendar)`
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

export interface DayFieldProps {
  readonly label: string;
  /** An ISO day, or '' for none; what could not be read stays as it was typed. */
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly error?: string | undefined;
  readonly hideLabel?: boolean;
  readonly autoFocus?: boolean;
  readonly isDisabled?: boolean;
  /** Enter walks through it on the way to the next line. */
  readonly step?: boolean;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void;
}

/**
 * A day, typed as people type it ("25/11", "25 Nov", "Fri", "+3") and shown as the company writes it, or picked from a
 * calendar. What is no day is told when the field is left, and stays there to be mended.
 */
export function DayField({ label, value, onChange, error, hideLabel, isDisabled = false, ...props }: DayFieldProps) {
  const locale = useLocale();
  const writing = useMemo(() => dayWritingOf(locale), [locale]);
  const [typed, setTyped] = useState<string | null>(null);
  const isUnread = typed === null && value !== '' && !isDay(value);
  const wrong = isUnread ? `Type a day like ${writeDay(today(), locale)}, 25 Nov, Fri or +3.` : error;
  const type = (text: string) => {
    setTyped(text);
    const day = text.trim() === '' ? '' : readDay(text, writing, today());
    if (day !== null) onChange(day);
  };
  const leave = () => {
    if (typed !== null && typed.trim() !== '' && readDay(typed, writing, today()) === null) onChange(typed.trim());
    setTyped(null);
  };
  return (
    <Wrap
      value={typed ?? writeDay(value, locale)}
      onChange={type}
      isInvalid={wrong !== undefined}
      isDisabled={isDisabled}
      validationBehavior="aria"
      {...(hideLabel ? { 'aria-label': label } : {})}
    >
      {!hideLabel && <FieldLabel>{label}</FieldLabel>}
      <Box>
        <Input
          className={props.step ? 'step' : ''}
          autoComplete="off"
          autoFocus={props.autoFocus ?? false}
          onFocus={(event) => event.currentTarget.select()}
          onBlur={leave}
          onKeyDown={(event) => {
            // Ctrl comes before Ctrl Enter, which posts what stands here.
            if (['Enter', 'Control', 'Meta'].includes(event.key)) leave();
            props.onKeyDown?.(event);
          }}
        />
        <DialogTrigger>
          <Open aria-label="Calendar" isDisabled={isDisabled} excludeFromTabOrder>
            <CalendarDays size={15} aria-hidden />
          </Open>
          <Drop placement="bottom end">
            <Dialog aria-label={label}>
              {({ close }) => (
                <Month
                  aria-label={label}
                  autoFocus
                  value={isDay(value) ? parseDate(value) : null}
                  onChange={(day) => {
                    setTyped(null);
                    onChange(day.toString());
                    close();
                  }}
                >
                  <header>
                    <Open slot="previous">
                      <ChevronLeft size={16} aria-hidden />
                    </Open>
                    <CalendarHeading />
                    <Open slot="next">
                      <ChevronRight size={16} aria-hidden />
                    </Open>
                  </header>
                  <CalendarGrid>{(date) => <Day date={date} />}</CalendarGrid>
                </Month>
              )}
            </Dialog>
          </Drop>
        </DialogTrigger>
      </Box>
      <Wrong>{wrong}</Wrong>
    </Wrap>
  );
}
