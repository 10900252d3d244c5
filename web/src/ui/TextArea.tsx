import { TextArea as AriaTextArea, TextField } from 'react-aria-components';
import styled from 'styled-components';
import { boxLook, column } from './box.ts';
import { FieldLabel, Wrong } from './Field.tsx';

const Wrap = styled(TextField)`${column}`;
const Lines = styled(AriaTextArea)`${boxLook} padding: 6px 9px; resize: vertical; min-height: 58px;`;

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly error?: string | undefined;
}

/** Some lines to type into. */
export function TextArea({ label, value, onChange, error }: Props) {
  return (
    <Wrap value={value} onChange={onChange} isInvalid={error !== undefined} validationBehavior="aria">
      <FieldLabel>{label}</FieldLabel>
      <Lines />
      <Wrong>{error}</Wrong>
    </Wrap>
  );
}
