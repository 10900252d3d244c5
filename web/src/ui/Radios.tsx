import type { ReactNode } from 'react';
import { Radio, RadioGroup } from 'react-aria-components';
import styled from 'styled-components';
import { column } from './box.ts';
import { FieldLabel, Wrong } from './Field.tsx';

const Wrap = styled(RadioGroup)`${column} gap: 6px;`;
const One = styled(Radio)`
  position: relative; display: flex; align-items: flex-start; gap: 8px; min-height: 26px; cursor: pointer;
  &[data-disabled] { color: var(--ink-3); cursor: default; }
`;
const Round = styled.span`
  flex: none; width: 18px; height: 18px; margin-top: 1px; border: 1.5px solid var(--ink-3); border-radius: 50%; background: var(--field);
  [data-selected] > & { border: 6px solid var(--walnut); }
  [data-focus-visible] > & { outline: 2px solid var(--indigo); outline-offset: 2px; }
  [data-disabled] > & { opacity: 0.5; }
`;

interface Props<Value extends string> {
  readonly label: string;
  readonly value: Value;
  readonly onChange: (value: Value) => void;
  readonly options: readonly (readonly [value: Value, label: ReactNode])[];
  readonly hideLabel?: boolean;
  readonly isDisabled?: boolean;
  readonly error?: string | undefined;
}

/** One of a few, all of them seen at once. */
export function Radios<Value extends string>({ label, value, onChange, options, hideLabel, ...props }: Props<Value>) {
  return (
    <Wrap
      value={value}
      onChange={(next) => onChange(next as Value)}
      isDisabled={props.isDisabled ?? false}
      isInvalid={props.error !== undefined}
      {...(hideLabel ? { 'aria-label': label } : {})}
    >
      {!hideLabel && <FieldLabel>{label}</FieldLabel>}
      {options.map(([option, text]) => (
        <One key={option} value={option}>
          <Round aria-hidden />
          <span>{text}</span>
        </One>
      ))}
      <Wrong>{props.error}</Wrong>
    </Wrap>
  );
}
