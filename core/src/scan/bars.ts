/** What Code 128 carries without tricks that some readers do not know. */
const IN_BARS = /^[\x20-\x7e]{1,48}$/;

/** Whether a text can stand in bars (Code 128): a bin “Б1” is printed as text alone. */
export const fitsInBars = (text: string): boolean => IN_BARS.test(text);
