import styled from 'styled-components';

/** Small text parts that every screen uses. */
export const Muted = styled.span`color: var(--ink-2);`;
export const Faint = styled.small`color: var(--ink-3);`;
export const Lead = styled.p`color: var(--ink-2); margin-top: 4px; b { color: var(--ink); }`;
export const Late = styled.span`color: var(--short); font-weight: 600;`;
export const Row = styled.div<{ $gap?: number; $wrap?: boolean }>`
  display: flex; align-items: center; gap: ${({ $gap }) => $gap ?? 10}px; flex-wrap: ${({ $wrap }) => ($wrap ? 'wrap' : 'nowrap')};
`;
export const Push = styled.span`margin-left: auto;`;
export const VisuallyHidden = styled.span`
  position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap;
`;
