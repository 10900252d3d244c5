import type { Reader } from '../db/database.ts';

/** Decimals of the company's currency: what money is paid in. */
export async function currencyDecimals(db: Reader): Promise<number> {
  const company = await db.models.company.findByPk(1, { rejectOnEmpty: true });
  const format = new Intl.NumberFormat('en', { style: 'currency', currency: company.currency });
  return format.resolvedOptions().maximumFractionDigits ?? 2;
}
