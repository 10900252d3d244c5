import { Check, Minus } from 'lucide-react';
import type { ReactNode } from 'react';
import { Checkbox } from 'react-aria-components';
import styled from 'styled-components';
import { FINGER, forFingers } from './box.ts';

// Positioned, so that its hidden input stands where it does: a browser scrolls whatever it must to show what has the focus.
const Wrap = styled(Checkbox)`
  position: relative; display: inline-flex; align-items: center; gap: 8px; min-height: 26px; min-width: 26px; cursor: pointer; ${forFingers} @media ${FINGER} { min-width: 44px; }
  &[data-disabled] { color: var(--ink-3); cursor: default; }
`;
const Square = styled.span`
  flex: none; width: 18px; height: 18px; border: 1.5px solid var(--ink-3); border-radius: 3px; background: var(--field); display: grid; place-items: center; color: var(--on-dark);
  [data-selected] > &, [data-indeterminate] > & { background: var(--walnut); border-color: var(--walnut); }
  [data-focus-visible] > & { outline: 2px solid var(--indigo); outline-offset: 2px; }
  [data-disabled] > & { opacity: 0.5; }
  [data-invalid] > & { border-color: var(--short); }
  @media (forced-colors: active) { [data-selected] > & { background: Highlight; color: HighlightText; } }
`;

interface Props {
  readonly isOn: boolean;
  readonly onChange: (isOn: boolean) => void;
  /** Its name, beside it; where there is no room, `label` is it. */
  readonly children?: ReactNode;
  readonly label?: string;
  /** Some of what it stands for is chosen. */
  readonly isSome?: boolean;
  readonly isDisabled?: boolean;
}

/** Something that is so or not. */
export function Tick({ isOn, onChange, children, label, isSome = false, isDisabled = false }: Props) {
  return (
    <Wrap
      isSelected={isOn}
      isIndeterminate={isSome}
      onChange={onChange}
      isDisabled={isDisabled}
      {...(label ? { 'aria-label': label } : {})}
    >
      <Square aria-hidden>
        {isSome ? <Minus size={13} strokeWidth={3} /> : isOn && <Check size={13} strokeWidth={3} />}
      </Square>
      {children}
    </Wrap>
  );
}
