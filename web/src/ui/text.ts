import styled from 'styled-components';
import { type Spaced, spaced } from './space.ts';

/** Small text parts that every screen uses. */
export const Muted = styled.span`color: var(--ink-2); b { color: var(--ink); }`;
export const Faint = styled.small`color: var(--ink-3);`;
/** A key that does the same, where there is a keyboard. */
export const KeyHint = styled(Faint)`@media (pointer: coarse), (max-width: 700px) { display: none; }`;
export const Lead = styled.p`color: var(--ink-2); margin-top: 4px; b { color: var(--ink); }`;
export const Late = styled.span`color: var(--short); font-weight: 600;`;
export const Row = styled.div<Spaced & { $gap?: number; $wrap?: boolean; $end?: boolean }>`
  display: flex; align-items: ${({ $end }) => ($end ? 'flex-end' : 'center')}; gap: ${({ $gap }) => $gap ?? 10}px;
  flex-wrap: ${({ $wrap }) => ($wrap ? 'wrap' : 'nowrap')}; ${spaced}
`;
export const Push = styled.span`margin-left: auto;`;
export const VisuallyHidden = styled.span`
  position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap;
`;
