import { Button } from './Button.tsx';
import { Row } from './text.ts';

interface Props {
  readonly isNew: boolean;
  readonly busy: boolean;
  readonly form: { readonly takeTheirs: () => void };
  /** Closes a form that was opened over its record; without it there is nothing to close. */
  readonly onDone?: (() => void) | undefined;
}

/** Saves a record, or leaves it as it was. */
export function RecordButtons({ isNew, busy, form, onDone }: Props) {
  return (
    <Row>
      <Button type="submit" look="go" busy={busy}>
        {isNew ? 'Add' : 'Save'}
      </Button>
      {onDone && (
        <Button
          onPress={() => {
            form.takeTheirs();
            onDone();
          }}
        >
          Cancel
        </Button>
      )}
    </Row>
  );
}
