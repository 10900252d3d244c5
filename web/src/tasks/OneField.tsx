import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { Part } from '../ui/space.ts';
import { Row } from '../ui/text.ts';
import { type TypedScreen, useTyped } from '../ui/useTypedScreen.ts';

interface OneFieldProps {
  readonly label: string;
  /** Where what is typed stays until it is saved or given up. */
  readonly screen: TypedScreen;
  readonly start: string;
  readonly numeric?: boolean;
  readonly error: string | undefined;
  readonly action: string;
  readonly onKeep: (text: string) => void;
  readonly onClose: () => void;
}

/** One thing to type, right beneath what it is about. */
export function OneField({ label, screen, start, numeric = false, error, action, onKeep, onClose }: OneFieldProps) {
  const [text, setText] = useTyped(screen, label, start);
  return (
    <Row $gap={6} $end $top={4}>
      <Part $width={240}>
        <Field
          label={label}
          autoFocus
          numeric={numeric}
          value={text}
          onChange={setText}
          error={error}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && text.trim() !== '') onKeep(text);
            if (event.key === 'Escape') onClose();
          }}
        />
      </Part>
      <Button isDisabled={text.trim() === ''} onPress={() => onKeep(text)}>
        {action}
      </Button>
      <Button look="ghost" onPress={onClose}>
        Cancel
      </Button>
    </Row>
  );
}
