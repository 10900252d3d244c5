import styled, { css } from 'styled-components';

/** Room around a part and for it, in pixels; what a screen says of its own arrangement. */
export interface Spaced {
  readonly $top?: number;
  readonly $bottom?: number;
  /** Never wider than the screen. */
  readonly $width?: number;
  readonly $max?: number;
  readonly $min?: number;
  /** Takes what the others leave. */
  readonly $grow?: boolean;
}

const px = (name: string, size: number | undefined) => (size === undefined ? '' : `${name}: ${size}px;`);

export const spaced = css<Spaced>`
  ${({ $top }) => px('margin-top', $top)} ${({ $bottom }) => px('margin-bottom', $bottom)} ${({ $width }) => px('width', $width)}
  ${({ $width, $max }) => px('max-width', $max) || ($width === undefined ? '' : 'max-width: 100%;')} ${({ $min }) => px('min-width', $min)}
  ${({ $grow }) => ($grow ? 'flex: 1;' : '')}
`;

export const Part = styled.div<Spaced>`${spaced}`;
export const Para = styled.p<Spaced>`${spaced}`;
export const Th = styled.th<Spaced>`${spaced}`;
export const H1 = styled.h1<Spaced>`${spaced}`;
export const H2 = styled.h2<Spaced>`${spaced}`;
export const Section = styled.section<Spaced>`${spaced}`;
/** Parts beneath each other. */
export const Stack = styled.div<Spaced & { $gap: number }>`
  display: grid; grid-template-columns: minmax(0, 1fr); gap: ${({ $gap }) => $gap}px; ${spaced}
`;
