import type { CustomerRow } from '@yosegi/contract';
import { useState } from 'react';
import { useQuestion } from '../api/client.ts';
import { later } from '../ui/later.tsx';
import { type Found, Picker, type PickerField, useTyping } from '../ui/Picker.tsx';
import { Tile } from '../ui/Tile.tsx';

const CustomerDialog = later(() => import('./CustomerDialog.tsx'), 'CustomerDialog');

interface Props extends Omit<PickerField, 'chosen'> {
  /** The customer's id; empty until one is chosen. */
  readonly value: string;
  readonly onChange: (id: string) => void;
}

type Named = Pick<CustomerRow, 'id' | 'code' | 'name'>;

/** One of all customers, by any part of name, code or contact; a new one is added on the way. */
export function CustomerPicker({ value, onChange, ...field }: Props) {
  const [picked, setPicked] = useState<Named | null>(null);
  const known = picked !== null && String(picked.id) === value ? picked : null;
  const id = Number(value) || 0;
  const held = useQuestion('customer', { params: { id } }, { enabled: id > 0 && known === null });
  const typing = useTyping();
  const { asked } = typing;
  const answer = useQuestion('customers', { query: { q: asked, limit: 12 } }, { enabled: asked !== '', keep: true });
  const rows = asked === '' ? [] : (answer.data?.rows ?? []);
  const meant = asked.toLowerCase();
  const found: Found<Named> = {
    rows,
    settled: answer.isSuccess && !answer.isPlaceholderData,
    exact: rows.find(({ code, name }) => [code, name].some((own) => own.toLowerCase() === meant)),
    takesOnly: true,
  };
  const one = known ?? (id > 0 ? held.data : undefined);
  return (
    <Picker<Named>
      {...field}
      placeholder={field.placeholder ?? 'Enter a name or code'}
      chosen={one ? `${one.name} · ${one.code}` : ''}
      typing={typing}
      found={found}
      onPick={(row) => {
        setPicked(row);
        onChange(String(row.id));
      }}
      textOf={({ code, name }) => `${name} ${code}`}
      draw={({ code, name }) => (
        <>
          <Tile code={code} size={28} />
          <span>
            <b>{name}</b>
          </span>
          <small>{code}</small>
        </>
      )}
      says={{ before: 'Enter part of the name or code.', none: 'No customers match.' }}
      adding={{
        what: 'customer',
        dialog: (text, onClose, onDone) => <CustomerDialog text={text} onClose={onClose} onDone={onDone} />,
      }}
    />
  );
}
