import type { Writer } from '../db/database.ts';

/** The next number of a series, like RC-0042. */
export async function nextNumber(tx: Writer, prefix: string): Promise<string> {
  const series = await tx.driver.one<{ next: number }>(
    'INSERT INTO series (name, next) VALUES ($1, 1) ON CONFLICT (name) DO UPDATE SET next = next + 1 RETURNING next',
    [prefix],
  );
  return `${prefix}-${String(series?.next).padStart(4, '0')}`;
}
