import { Field } from './Field.tsx';
import { KeyValue } from './layout.ts';
import { RowList, type RowListProps } from './RowList.tsx';

export interface TypedField {
  readonly name: string;
  readonly value: string;
}

/** Whatever else the owner keeps of an item, a customer or something that a customer owns. */
export function OwnFields({
  rows,
  onChange,
  at,
  hint,
  example,
}: RowListProps<TypedField> & { hint: string; example: string }) {
  return (
    <RowList
      title="Custom fields"
      hint={hint}
      rows={rows}
      onChange={onChange}
      blank={{ name: '', value: '' }}
      add="+ Field"
      columns="1fr 1.6fr"
    >
      {(row, index, set) => (
        <>
          <Field
            label={`Name of field ${index + 1}`}
            hideLabel
            placeholder={example}
            value={row.name}
            onChange={(name) => set({ name })}
            error={at(`fields.${index}.name`)}
          />
          <Field
            label={`Value of field ${index + 1}`}
            hideLabel
            value={row.value}
            onChange={(value) => set({ value })}
            error={at(`fields.${index}.value`)}
          />
        </>
      )}
    </RowList>
  );
}

/** What the owner keeps of something, to be read. */
export const OwnFacts = ({ fields }: { fields: readonly TypedField[] }) =>
  fields.map(({ name, value }) => (
    <KeyValue key={name}>
      <span>{name}</span>
      <b>{value}</b>
    </KeyValue>
  ));
