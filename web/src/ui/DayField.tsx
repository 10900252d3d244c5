import { dayWritingOf, isDay, readDay, writeDay } from '@yosegi/core/days';
import { CalendarDays } from 'lucide-react';
import { type KeyboardEvent, useMemo, useState } from 'react';
import { Dialog, DialogTrigger, Input, Popover, TextField } from 'react-aria-components';
import styled from 'styled-components';
import { column, drop } from './box.ts';
import { Box, FieldLabel, Wrong } from './Field.tsx';
import { useLocale } from './format.ts';
import { IconButton } from './IconButton.ts';
import { later } from './later.tsx';
import { today } from './today.ts';

const Wrap = styled(TextField)`${column}`;
const Drop = styled(Popover)`${drop} max-height: none; padding: 12px;`;
/** As large as a month, so that nothing jumps when it comes. */
const Blank = styled.div`width: 252px; height: 270px;`;
const Month = later(() => import('./Month.tsx'), 'Month', <Blank aria-busy />);

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
  /** What follows is done at once: only a whole day is told, when the field is left, Enter is pressed or a day is picked. */
  readonly actsAtOnce?: boolean;
}

/**
 * A day, typed as people type it ("25/11", "25 Nov", "Fri", "+3") and shown as the company writes it, or picked from a
 * calendar. What is no day is told when the field is left, and stays there to be mended.
 */
export function DayField({ label, value, onChange, error, hideLabel, isDisabled = false, ...props }: DayFieldProps) {
  const locale = useLocale();
  const writing = useMemo(() => dayWritingOf(locale), [locale]);
  const [typed, setTyped] = useState<string | null>(null);
  const [unread, setUnread] = useState(false);
  const isUnread = unread || (typed === null && value !== '' && !isDay(value));
  const wrong = isUnread ? `Enter a date like ${writeDay(today(), locale)}, 25 Nov, Fri or +3.` : error;
  const type = (text: string) => {
    setTyped(text);
    setUnread(false);
    if (props.actsAtOnce) return;
    const day = text.trim() === '' ? '' : readDay(text, writing, today());
    if (day !== null) onChange(day);
  };
  const leave = () => {
    if (props.actsAtOnce && typed !== null) {
      const day = typed.trim() === '' ? '' : readDay(typed, writing, today());
      setUnread(day === null);
      if (day === null) return;
      setTyped(null);
      if (day !== value) onChange(day);
      return;
    }
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
          <IconButton aria-label="Calendar" isDisabled={isDisabled} excludeFromTabOrder>
            <CalendarDays size={15} aria-hidden />
          </IconButton>
          <Drop placement="bottom end">
            <Dialog aria-label={label}>
              {({ close }) => (
                <Month
                  label={label}
                  day={isDay(value) ? value : null}
                  onDay={(day) => {
                    setTyped(null);
                    onChange(day);
                    close();
                  }}
                />
              )}
            </Dialog>
          </Drop>
        </DialogTrigger>
      </Box>
      <Wrong>{wrong}</Wrong>
    </Wrap>
  );
}
