import type { ReactNode } from 'react';
import { Field } from '../ui/Field.tsx';
import { Part } from '../ui/space.ts';
import { Muted } from '../ui/text.ts';

/** What is written on a document, and what it comes to, in the bar that posts it. */
export function Remark({
  label = 'Remark',
  value,
  onChange,
  children,
}: {
  label?: string;
  value: string;
  onChange: (text: string) => void;
  children: ReactNode;
}) {
  return (
    <>
      <Part $width={220}>
        <Field label={label} hideLabel placeholder={label} value={value} onChange={onChange} />
      </Part>
      <Muted>{children}</Muted>
    </>
  );
}
