import type { ReactElement } from 'react';
import { Focusable, Tooltip, TooltipTrigger } from 'react-aria-components';
import styled from 'styled-components';

const Told = styled(Tooltip)`
  background: var(--ebony); color: var(--on-dark); padding: 5px 10px; border-radius: 3px; font-size: 12.5px; max-width: 280px; box-shadow: 0 4px 14px var(--shade);
  @media (forced-colors: active) { border: 1px solid; }
`;

/** A hint beside something that can have the focus: seen by whoever points at it, and by whoever comes by keyboard. */
export function Tip({ text, children }: { text: string; children: ReactElement<{ role?: string }> }) {
  return (
    <TooltipTrigger delay={500} closeDelay={100}>
      <Focusable>{children as ReactElement<React.DOMAttributes<Element>, string>}</Focusable>
      <Told offset={6}>{text}</Told>
    </TooltipTrigger>
  );
}
