import { Button } from 'react-aria-components';
import styled from 'styled-components';
import { FINGER, forFingers } from './box.ts';

/** A small button inside a field: the calendar, the month before. */
export const IconButton = styled(Button)`
  border: 0; background: none; padding: 4px; margin-right: -4px; min-width: 26px; min-height: 26px; color: var(--ink-2); cursor: pointer; display: grid; place-items: center; ${forFingers} @media ${FINGER} { min-width: 44px; }
  &[data-focus-visible] { outline: 2px solid var(--indigo); outline-offset: -2px; }
`;
