/** An id that nobody else makes: a key of one intention. Unlike `crypto.randomUUID`, to be had on a page of plain http too. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}
