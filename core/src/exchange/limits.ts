/** Bytes of a file that can come in. */
export const LARGEST_FILE = 32 * 1024 * 1024;

/** Rows of a file that can come in. */
export const MOST_ROWS = 100_000;
