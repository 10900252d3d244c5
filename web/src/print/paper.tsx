import type { LabelSymbol } from '@yosegi/contract';
import { fitsInBars } from '@yosegi/core/scan';
// The symbols we use alone: all of them together are 900 kB.
import { code128, drawingSVG, gs1_128, gs1datamatrix } from 'bwip-js/generic';
import { useMemo } from 'react';
import styled from 'styled-components';

export const Paper = styled.article`
  background: #fff; color: #000; width: min(190mm, 100%); margin: 18px auto; padding: 12mm; box-shadow: 0 2px 14px #0002; font-size: 11pt;
  h1 { font-size: 22pt; } h2 { font-size: 13pt; margin-top: 8mm; }
  table { margin-top: 5mm; } th { text-align: left; font-size: 9pt; border-bottom: 1.5pt solid #000; padding: 2pt 4pt; }
  td { overflow-wrap: anywhere; border-bottom: 0.5pt solid #888; padding: 4pt; height: 30pt; } .num { text-align: right; white-space: nowrap; }
  td > div > span, td > b { display: inline-block; min-width: 90px; } tr { break-inside: avoid; }
  @media print { margin: 0; padding: 0; width: auto; box-shadow: none; }
`;
export const Head = styled.header`display: flex; justify-content: space-between; gap: 16px; align-items: flex-start; border-bottom: 2pt solid #000; padding-bottom: 4mm;`;

export const Box = styled.span`display: inline-block; width: 13pt; height: 13pt; border: 1pt solid #000;`;
/** To be filled in by hand. */
export const Blank = styled.span<{ $mm?: number }>`
  display: inline-block; min-width: ${({ $mm }) => $mm ?? 22}mm; border-bottom: 0.7pt solid #000;
`;
/** Text that was typed in several lines; addresses and contact details are small. */
export const Typed = styled.div<{ $top?: number; $bottom?: number; $small?: boolean }>`
  white-space: pre-line; margin-top: ${({ $top }) => $top ?? 0}mm; margin-bottom: ${({ $bottom }) => $bottom ?? 0}mm;
  ${({ $small }) => ($small ? 'font-size: 9pt;' : '')}
`;
const Mark = styled.svg`display: block; margin: auto;`;
const Coded = styled.figure`margin: 0; text-align: center; font-size: 9pt;`;

const SYMBOLS = { code128, 'gs1-128': gs1_128, gs1datamatrix } as const;

interface Shape {
  readonly d: string;
  /** Bars are strokes; the modules of a square symbol are filled. */
  readonly stroke: string | null;
}

/** A symbol as shapes, so that it prints sharp. `text` of GS1 data has its identifiers in parentheses. */
export function LabelMark({ symbol, text, width }: { symbol: LabelSymbol; text: string; width: number }) {
  const mark = useMemo(() => {
    // Letters that no bars can carry are read by people, beneath.
    if (symbol === 'code128' && !fitsInBars(text)) return null;
    const square = symbol === 'gs1datamatrix';
    const source = SYMBOLS[symbol]({ bcid: symbol, text, scale: 2, ...(square ? {} : { height: 10 }) }, drawingSVG());
    const svg = new DOMParser().parseFromString(source, 'image/svg+xml').documentElement;
    const paths = [...svg.querySelectorAll('path')];
    return {
      viewBox: svg.getAttribute('viewBox') ?? '0 0 100 30',
      shapes: paths.map(
        (path): Shape => ({ d: path.getAttribute('d') ?? '', stroke: path.getAttribute('stroke-width') }),
      ),
    };
  }, [symbol, text]);
  if (mark === null) return <small>without a barcode</small>;
  const { viewBox, shapes } = mark;
  return (
    <Mark viewBox={viewBox} width={width} role="img" aria-label={`Barcode ${text}`}>
      {shapes.map(({ d, stroke }) =>
        stroke ? (
          <path key={d} d={d} stroke="#000" strokeWidth={stroke} fill="none" />
        ) : (
          <path key={d} d={d} fill="#000" />
        ),
      )}
    </Mark>
  );
}

/** Code 128 of a number, with the number beneath. */
export function Barcode({ text }: { text: string }) {
  return (
    <Coded>
      <LabelMark symbol="code128" text={text} width={170} />
      <figcaption>{text}</figcaption>
    </Coded>
  );
}
