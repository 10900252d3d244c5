/** What the barcode of a line on a bench sheet carries, and that of the whole sheet without a line: "B-0116/482". */
export const lineCode = (number: string, lineId?: number) => (lineId === undefined ? number : `${number}/${lineId}`);

/** Reads it; null for anything else. Builds and repairs have such sheets. */
export function readLineCode(text: string): { number: string; lineId: number | null } | null {
  const [, number, line] = /^\s*((?:B|RP)-\d{1,12})(?:\/(\d{1,15}))?\s*$/i.exec(text) ?? [];
  return number ? { number: number.toUpperCase(), lineId: line ? Number(line) : null } : null;
}
