import type { Item } from '@yosegi/contract';
import type { ComponentProps } from 'react';
import { useQuestion } from '../api/client.ts';
import { OutFields } from './OutFields.tsx';

type Props = Omit<ComponentProps<typeof OutFields>, 'pieces' | 'item'> & {
  readonly item: Item;
  readonly binId: string;
};

/** Which lots or serials are taken from a bin, of what stands there now. */
export function TrackedOut({ binId, ...props }: Props) {
  const bins = useQuestion('itemBins', { params: { id: props.item.id } }, { enabled: props.item.tracking !== 'none' });
  const bin = (bins.data ?? []).find((one) => String(one.binId) === binId && one.kind !== 'bench');
  return <OutFields {...props} pieces={bin?.pieces ?? []} />;
}
