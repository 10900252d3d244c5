import { decimalsOf } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';

/** Decimals of the company's currency: what money is paid in. */
export async function currencyDecimals(db: Reader): Promise<number> {
  const company = await db.models.company.findByPk(1, { rejectOnEmpty: true });
  return decimalsOf(company.currency);
}
