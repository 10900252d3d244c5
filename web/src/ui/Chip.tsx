import styled from 'styled-components';

export type Tone = 'ok' | 'coming' | 'short' | 'held';

/** A short verdict; its words carry the meaning, its colour only repeats it. */
export const Chip = styled.span<{ $tone: Tone }>`
  white-space: nowrap; display: inline-flex; justify-self: start; gap: 6px; align-items: center; font-size: 12.5px; padding: 2px 8px 2px 6px;
  border-radius: 2px; border-left: 4px solid var(--${({ $tone }) => $tone}); color: var(--${({ $tone }) => $tone}-ink);
  background: var(--${({ $tone }) => $tone}-wash);
`;
