import styled from 'styled-components';
import { type Spaced, spaced } from './space.ts';

/** Small text parts that every screen uses. */
export const Muted = styled.span`color: var(--ink-2); b { color: var(--ink); }`;
export const Faint = styled.small<{ $oneLine?: boolean }>`
  color: var(--ink-3); ${({ $oneLine }) => ($oneLine ? 'white-space: nowrap;' : '')}
`;
/** A key that does the same, where there is a keyboard. */
export const KeyHint = styled(Faint)`@media (pointer: coarse), (max-width: 700px) { display: none; }`;
export const Lead = styled.p<Spaced>`color: var(--ink-2); margin-top: 4px; ${spaced} b { color: var(--ink); }`;
export const Late = styled.span`color: var(--short); font-weight: 600;`;
export const Row = styled.div<Spaced & { $gap?: number; $wrap?: boolean; $end?: boolean; $start?: boolean }>`
  display: flex; align-items: ${({ $end, $start }) => ($end ? 'flex-end' : $start ? 'flex-start' : 'center')}; gap: ${({ $gap }) => $gap ?? 10}px;
  flex-wrap: ${({ $wrap }) => ($wrap ? 'wrap' : 'nowrap')}; ${spaced}
`;
export const Push = styled.span`margin-left: auto;`;
export const VisuallyHidden = styled.span`
  position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap;
`;
export const OneLine = styled.span`white-space: nowrap;`;
/** Text that a person typed in several lines. */
export const Lines = styled.p<Spaced>`white-space: pre-line; ${spaced}`;
export const Bullets = styled.ul<Spaced>`margin: 0; padding-left: 18px; ${spaced}`;
