import { toSVG } from 'bwip-js/browser';
import { useMemo } from 'react';
import styled from 'styled-components';

export const Bar = styled.div`padding: 12px 24px; display: flex; gap: 10px; background: var(--birch); @media print { display: none; }`;
export const Paper = styled.article`
  background: #fff; color: #000; width: min(190mm, 100%); margin: 18px auto; padding: 12mm; box-shadow: 0 2px 14px #0002; font-size: 11pt;
  h1 { font-size: 22pt; } h2 { font-size: 13pt; margin-top: 8mm; }
  table { margin-top: 5mm; } th { text-align: left; font-size: 9pt; border-bottom: 1.5pt solid #000; padding: 2pt 4pt; }
  td { border-bottom: 0.5pt solid #888; padding: 4pt; height: 30pt; } .num { text-align: right; white-space: nowrap; }
  tr { break-inside: avoid; }
  @media print { margin: 0; padding: 0; width: auto; box-shadow: none; }
`;
export const Head = styled.header`display: flex; justify-content: space-between; gap: 16px; align-items: flex-start; border-bottom: 2pt solid #000; padding-bottom: 4mm;`;

/** Code 128 of a number, drawn as shapes so that it prints sharp. */
export function Barcode({ text }: { text: string }) {
  const path = useMemo(() => {
    const svg = new DOMParser().parseFromString(
      toSVG({ bcid: 'code128', text, height: 10, scale: 2 }),
      'image/svg+xml',
    ).documentElement;
    const strokes = [...svg.querySelectorAll('path')].map((shape) => ({
      d: shape.getAttribute('d') ?? '',
      width: shape.getAttribute('stroke-width') ?? '1',
    }));
    return { viewBox: svg.getAttribute('viewBox') ?? '0 0 100 30', strokes };
  }, [text]);
  return (
    <figure style={{ margin: 0, textAlign: 'center', fontSize: '9pt' }}>
      <svg viewBox={path.viewBox} width={170} role="img" aria-label={`Barcode ${text}`}>
        {path.strokes.map((stroke) => (
          <path key={stroke.d} d={stroke.d} stroke="#000" strokeWidth={stroke.width} fill="none" />
        ))}
      </svg>
      <figcaption>{text}</figcaption>
    </figure>
  );
}
