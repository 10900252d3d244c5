import { createRequire } from 'node:module';
import type { Label } from '@yosegi/contract';
import { tileOf } from '@yosegi/core/items';
import { toSVG } from 'bwip-js/node';
import PDFDocument from 'pdfkit';

const MM = 72 / 25.4;
/** A usual label of a thermal printer, in millimetres. */
export const LABEL_SIZE = { width: 62, height: 38 } as const;
const MARGIN = 3;

const require = createRequire(import.meta.url);
const face = (weight: 400 | 700) =>
  require.resolve(`@fontsource/hanken-grotesk/files/hanken-grotesk-latin-${weight}-normal.woff`);

/** Stands in for a label printer: labels as a PDF with one page for each, drawn in lines so that every reader reads them. */
export function printLabels(labels: readonly Label[], title: string): Promise<Buffer> {
  const size: [number, number] = [LABEL_SIZE.width * MM, LABEL_SIZE.height * MM];
  const pdf = new PDFDocument({ size, margin: 0, autoFirstPage: false, info: { Title: title } });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => resolve(Buffer.concat(chunks)));
    pdf.on('error', reject);
  });
  pdf.registerFont('text', face(400));
  pdf.registerFont('bold', face(700));
  for (const label of labels) {
    pdf.addPage();
    drawLabel(pdf, label);
  }
  pdf.end();
  return done;
}

type Pdf = InstanceType<typeof PDFDocument>;

function drawLabel(pdf: Pdf, label: Label): void {
  const square = label.symbol === 'gs1datamatrix';
  const [left, top] = [MARGIN * MM, MARGIN * MM];
  const width = (LABEL_SIZE.width - 2 * MARGIN) * MM;
  const textWidth = square ? width - 20 * MM : width;
  const tile = label.code ? 9 * MM : 0;
  if (label.code) drawTile(pdf, label.code, left, top, tile);
  const beside = left + (tile ? tile + 2 * MM : 0);
  const room = textWidth - (beside - left);
  pdf.fillColor('#000').font('bold').fontSize(10);
  pdf.text(label.title, beside, top, { width: room, height: 4.4 * MM, ellipsis: true });
  pdf.font('text').fontSize(8);
  label.lines.forEach((line, index) => {
    pdf.text(line, beside, top + (5 + index * 3.4) * MM, { width: room, height: 3.4 * MM, ellipsis: true });
  });
  if (label.text === '') return;
  if (square) {
    drawSymbol(pdf, label, left + width - 18 * MM, top + 1 * MM, 18 * MM, 18 * MM);
    pdf
      .fontSize(6)
      .text(label.text, left, (LABEL_SIZE.height - MARGIN - 3) * MM, { width, height: 3 * MM, ellipsis: true });
    return;
  }
  drawSymbol(pdf, label, left, (LABEL_SIZE.height - MARGIN - 14) * MM, width, 10.5 * MM);
  const caption = { width, height: 3 * MM, align: 'center' as const, ellipsis: true };
  pdf.fontSize(6).text(label.text, left, (LABEL_SIZE.height - MARGIN - 3) * MM, caption);
}

function drawTile(pdf: Pdf, code: string, x: number, y: number, size: number): void {
  const { ground, pieces } = tileOf(code);
  pdf
    .save()
    .translate(x, y)
    .scale(size / 24);
  pdf.rect(0, 0, 24, 24).fill(ground);
  for (const { d, fill } of pieces) pdf.path(d).fill(fill);
  pdf.restore();
}

/** Draws a symbol as large as fits, its bars in proportion. */
function drawSymbol(pdf: Pdf, label: Label, x: number, y: number, width: number, height: number): void {
  const svg = toSVG({
    bcid: label.symbol,
    text: label.text,
    ...(label.symbol === 'gs1datamatrix' ? {} : { height: 10 }),
  });
  const [, w = '1', h = '1'] = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg) ?? [];
  const scaleX = width / Number(w);
  const scaleY = height / Number(h);
  const even = Math.min(scaleX, scaleY);
  pdf.save().translate(x, y);
  if (label.symbol === 'gs1datamatrix') pdf.scale(even);
  else pdf.scale(scaleX, scaleY);
  for (const [path] of svg.matchAll(/<path[^>]*>/g)) {
    const [, d = ''] = /\sd="([^"]+)"/.exec(path) ?? [];
    const [, stroke] = /\sstroke-width="([^"]+)"/.exec(path) ?? [];
    // Bars are strokes, modules are filled.
    if (stroke) pdf.lineWidth(Number(stroke)).path(d).stroke('#000');
    else pdf.path(d).fill('#000');
  }
  pdf.restore();
}
