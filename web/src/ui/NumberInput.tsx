import type { ComponentProps } from 'react';
import { useLocalNumber } from './useLocalNumber.ts';

interface Props extends Omit<ComponentProps<'input'>, 'value' | 'onChange'> {
  readonly value: string;
  readonly onChange: (plain: string) => void;
}

/** A number typed where a grid draws the box: as the company writes it on screen, plain in `value`. */
export function NumberInput({ value, onChange, onBlur, ...props }: Props) {
  const { shown, type, leave } = useLocalNumber(value, onChange);
  return (
    <input
      className="num"
      inputMode="decimal"
      autoComplete="off"
      {...props}
      value={shown}
      onChange={(event) => type(event.target.value)}
      onFocus={(event) => event.currentTarget.select()}
      onBlur={(event) => {
        leave();
        onBlur?.(event);
      }}
    />
  );
}
