import { useFormat } from '../ui/format.ts';
import { Late } from '../ui/text.ts';

/** What came with a plus, what went with a minus; a mere change of value moved nothing. */
export function SignedQuantity({
  quantity,
  unit,
  decimals = 3,
}: {
  quantity: string;
  unit: string;
  decimals?: number;
}) {
  const format = useFormat();
  if (Number(quantity) === 0) return <>–</>;
  const text = format.quantity(quantity, unit, decimals);
  return quantity.startsWith('-') ? <Late>{text}</Late> : <>+{text}</>;
}
