import { type KeyboardEvent, type ReactNode, type Ref, useId } from 'react';
import { FieldError, Input, Label, TextField } from 'react-aria-components';
import styled from 'styled-components';

const Wrap = styled(TextField)`display: flex; flex-direction: column; gap: 3px; min-width: 0;`;
export const FieldLabel = styled(Label)`font-size: 12px; color: var(--ink-2);`;
const Box = styled.span<{ $bad: boolean }>`
  display: flex; align-items: center; border: 1px solid ${({ $bad }) => ($bad ? 'var(--short)' : 'var(--line)')};
  border-radius: 3px; background: #fff; min-height: 34px; padding-right: 8px; gap: 6px;
  &:focus-within { outline: 2px solid var(--indigo); outline-offset: 0; }
  input { border: 0; background: none; padding: 6px 0 6px 9px; width: 100%; min-width: 0; outline: none; }
  input.num { text-align: right; }
  small { color: var(--ink-3); white-space: nowrap; }
`;
const Wrong = styled(FieldError)`color: var(--short-ink); font-size: 12.5px;`;

export interface FieldProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  /** What is wrong with it, in words. */
  error?: string | undefined;
  suffix?: ReactNode;
  /** Digits: right-aligned, with a numeric keyboard on phones. */
  numeric?: boolean;
  hideLabel?: boolean;
  /** Enter walks through it on the way to the next line. */
  step?: boolean;
  type?: 'text' | 'date';
  placeholder?: string;
  autoFocus?: boolean;
  isDisabled?: boolean;
  inputRef?: Ref<HTMLInputElement>;
  onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void;
  onBlur?: () => void;
}

/** A line to type into, with what is wrong shown beneath it. */
export function Field(props: FieldProps) {
  const { label, value, onChange, error, suffix, numeric, hideLabel, type = 'text', inputRef } = props;
  return (
    <Wrap
      value={value}
      onChange={onChange}
      isInvalid={error !== undefined}
      isDisabled={props.isDisabled ?? false}
      validationBehavior="aria"
      {...(hideLabel ? { 'aria-label': label } : {})}
    >
      {!hideLabel && <FieldLabel>{label}</FieldLabel>}
      <Box $bad={error !== undefined}>
        <Input
          ref={inputRef}
          type={type}
          className={[numeric && 'num', props.step && 'step'].filter(Boolean).join(' ')}
          inputMode={numeric ? 'decimal' : 'text'}
          autoComplete="off"
          autoFocus={props.autoFocus ?? false}
          placeholder={props.placeholder}
          onKeyDown={props.onKeyDown}
          onBlur={props.onBlur}
          onFocus={(event) => numeric && event.currentTarget.select()}
        />
        {suffix && <small>{suffix}</small>}
      </Box>
      <Wrong>{error}</Wrong>
    </Wrap>
  );
}

const Area = styled.div`
  display: flex; flex-direction: column; gap: 3px;
  textarea { border: 1px solid var(--line); border-radius: 3px; background: #fff; padding: 6px 9px; resize: vertical; min-height: 58px; }
  label { font-size: 12px; color: var(--ink-2); }
  textarea[aria-invalid='true'] { border-color: var(--short); }
  em { color: var(--short-ink); font-size: 12.5px; font-style: normal; }
`;
export function TextArea({
  label,
  value,
  onChange,
  error,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  error?: string | undefined;
}) {
  const id = useId();
  return (
    <Area>
      <label htmlFor={id}>{label}</label>
      <textarea
        id={id}
        value={value}
        aria-invalid={error !== undefined}
        aria-describedby={`${id}-error`}
        onChange={(event) => onChange(event.target.value)}
      />
      <em id={`${id}-error`}>{error}</em>
    </Area>
  );
}

const SelectWrap = styled.div`
  display: flex; flex-direction: column; gap: 3px; min-width: 0;
  label { font-size: 12px; color: var(--ink-2); }
  select { border: 1px solid var(--line); border-radius: 3px; background: #fff; padding: 6px 8px; min-height: 34px; min-width: 0; width: 100%; }
  em { color: var(--short-ink); font-size: 12.5px; font-style: normal; }
`;
export interface ChoiceProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  options: readonly (readonly [value: string, label: string])[];
  hideLabel?: boolean;
  /** Enter walks through it on the way to the next line. */
  step?: boolean;
  error?: string | undefined;
  onKeyDown?: (event: KeyboardEvent<HTMLSelectElement>) => void;
}
/** A choice of few; the system's own list works everywhere, on phones too. */
export function Choice({ label, value, onChange, options, hideLabel, step, error, onKeyDown }: ChoiceProps) {
  const id = useId();
  return (
    <SelectWrap>
      {!hideLabel && <label htmlFor={id}>{label}</label>}
      <select
        id={id}
        className={step ? 'step' : ''}
        {...(hideLabel ? { 'aria-label': label } : {})}
        value={value}
        aria-invalid={error !== undefined}
        onChange={(event) => onChange(event.target.value)}
        onKeyDown={onKeyDown}
      >
        {options.map(([option, text]) => (
          <option key={option} value={option}>
            {text}
          </option>
        ))}
      </select>
      {error && <em>{error}</em>}
    </SelectWrap>
  );
}
