import { Field, type FieldProps } from './Field.tsx';

type CellProps = Omit<FieldProps, 'hideLabel' | 'numeric' | 'suffix'>;

/** A quantity typed in a grid, with its unit beside it; pieces need none. */
export const QuantityCell = ({ unit, ...props }: CellProps & { unit: string }) => (
  <Field {...props} hideLabel numeric suffix={unit === 'each' ? '' : unit} />
);

/** A price or a cost typed in a grid. */
export const MoneyCell = (props: CellProps) => <Field {...props} hideLabel numeric />;
