import type { Reader } from '../db/database.ts';

/** What is written down of lots, in words: "colour dark, moisture 18 %". */
export async function lotSays(db: Reader, lotIds: readonly number[]): Promise<ReadonlyMap<number, string>> {
  const rows = await db.all<{ id: number; attributes: string }>(
    "SELECT id, attributes FROM lot WHERE id IN (SELECT value FROM json_each($1)) AND attributes <> '{}'",
    [JSON.stringify(lotIds)],
  );
  return new Map(rows.map(({ id, attributes }) => [id, attributesInWords(attributes)]));
}

/** @param json the names and values as they are kept */
export const attributesInWords = (json: string): string =>
  Object.entries(JSON.parse(json) as Record<string, string>)
    .map(([name, value]) => `${name} ${value}`)
    .join(', ');
