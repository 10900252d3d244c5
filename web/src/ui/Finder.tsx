import { useSearchParams } from 'react-router';
import { Field, type FieldProps } from './Field.tsx';
import { useAddress } from './useAddress.ts';

/**
 * What a list is searched for, kept in the address as `q`. What is typed is drawn here alone; the list follows the address
 * as soon as it can, and never holds up the next key.
 */
export function Finder({ hideLabel = true, ...props }: Pick<FieldProps, 'label' | 'placeholder' | 'hideLabel'>) {
  const [q, setQ] = useAddress('q');
  return <Field {...props} hideLabel={hideLabel} value={q} onChange={setQ} />;
}

/** What {@link Finder} asks for. */
export const useSought = (): string => useSearchParams()[0].get('q') ?? '';
