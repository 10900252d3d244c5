/** What a spreadsheet would take for a formula when it opens a text file; some read full-width signs as the plain ones. */
const DANGEROUS = /^'*[=+\-@\t\r＝＋－＠]/;

/**
 * A cell as it may stand in a text file: one that begins like a formula gets an apostrophe before it, which makes a
 * spreadsheet show it as text (OWASP, “CSV Injection”). {@link readCell} takes exactly that away again.
 */
export const harmless = (cell: string) => (DANGEROUS.test(cell) ? `'${cell}` : cell);

/** The cell as it was before {@link harmless}. */
export const readCell = (cell: string) => (cell.startsWith("'") && DANGEROUS.test(cell) ? cell.slice(1) : cell);
