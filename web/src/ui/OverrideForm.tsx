import { useState } from 'react';
import { Button } from './Button.tsx';
import { Field } from './Field.tsx';
import { Form } from './layout.ts';

/** An owner's override: it takes a reason and stays on Today until it is put right. */
export function OverrideForm({
  action,
  busy,
  onOverride,
}: {
  action: string;
  busy: boolean;
  onOverride: (reason: string) => void;
}) {
  const [reason, setReason] = useState('');
  const enough = reason.trim().length >= 3;
  return (
    <Form
      $columns={1}
      onSubmit={(event) => {
        event.preventDefault();
        if (enough) onOverride(reason.trim());
      }}
    >
      <Field label="Reason. This stays on Today until it is put right." value={reason} onChange={setReason} autoFocus />
      <div>
        <Button look="danger" type="submit" isDisabled={!enough} busy={busy}>
          {action}
        </Button>
      </div>
    </Form>
  );
}
