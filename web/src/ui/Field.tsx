import { type KeyboardEvent, type ReactNode, type Ref, useId } from 'react';
import { FieldError, Input, Label, TextField } from 'react-aria-components';
import styled from 'styled-components';
import { Aside, boxLook, column, labelLook, wrongLook } from './box.ts';
import { useFormat } from './format.ts';
import { useLocalNumber } from './useLocalNumber.ts';

const Wrap = styled(TextField)`${column}`;
export const FieldLabel = styled(Label)`${labelLook}`;
export const Wrong = styled(FieldError)`${wrongLook}`;
const ReadAs = styled.small`font-size: 12px; color: var(--coming-ink);`;
export const Box = styled.span`
  ${boxLook} display: flex; align-items: center; padding-right: 8px; gap: 6px;
  &:focus-within { outline: 2px solid var(--indigo); outline-offset: 0; }
  input { border: 0; background: none; padding: 6px 0 6px 9px; width: 100%; min-width: 0; outline: none; align-self: stretch; }
  input.num { text-align: right; }
`;

export interface FieldProps {
  label: string;
  value: string;
  /** A number it returns as text is shown instead of what was typed. */
  onChange: (value: string) => unknown;
  /** What is wrong with it, in words. */
  error?: string | undefined;
  suffix?: ReactNode;
  /** A number, typed and shown as the company writes it and plain in `value`; with a numeric keyboard on phones. */
  numeric?: boolean;
  hideLabel?: boolean;
  /** Enter walks through it on the way to the next line; through a number, unless this is false. */
  step?: boolean;
  placeholder?: string;
  autoFocus?: boolean;
  isDisabled?: boolean;
  inputRef?: Ref<HTMLInputElement>;
  onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void;
  onBlur?: () => void;
}

/** A line to type into, with what is wrong shown beneath it. */
export function Field({ numeric = false, ...props }: FieldProps) {
  return numeric ? <NumberLine {...props} /> : <TextLine {...props} />;
}

function NumberLine(props: Omit<FieldProps, 'numeric'>) {
  const format = useFormat();
  const { shown, readAs, type, leave } = useLocalNumber(props.value, props.onChange);
  const { onBlur } = props;
  return (
    <TextLine
      {...props}
      value={shown}
      onChange={type}
      isNumber
      hint={readAs === null ? undefined : `Read as ${format.typed(readAs)}`}
      onBlur={() => {
        leave();
        onBlur?.();
      }}
    />
  );
}

interface LineProps extends Omit<FieldProps, 'numeric'> {
  readonly isNumber?: boolean;
  readonly hint?: string | undefined;
}

function TextLine({ label, value, onChange, error, hint, isNumber = false, ...props }: LineProps) {
  const hintId = useId();
  return (
    <Wrap
      value={value}
      onChange={onChange}
      isInvalid={error !== undefined}
      isDisabled={props.isDisabled ?? false}
      validationBehavior="aria"
      {...(props.hideLabel ? { 'aria-label': label } : {})}
      {...(hint ? { 'aria-describedby': hintId } : {})}
    >
      {!props.hideLabel && <FieldLabel>{label}</FieldLabel>}
      <Box>
        <Input
          ref={props.inputRef}
          className={[isNumber && 'num', props.step && 'step', props.step === false && 'passed']
            .filter(Boolean)
            .join(' ')}
          inputMode={isNumber ? 'decimal' : 'text'}
          autoComplete="off"
          autoFocus={props.autoFocus ?? false}
          placeholder={props.placeholder}
          onKeyDown={props.onKeyDown}
          onBlur={props.onBlur}
          onFocus={(event) => isNumber && event.currentTarget.select()}
        />
        {props.suffix && <Aside>{props.suffix}</Aside>}
      </Box>
      {hint && <ReadAs id={hintId}>{hint}</ReadAs>}
      <Wrong>{error}</Wrong>
    </Wrap>
  );
}
