import type { Reason } from '@yosegi/contract';
import { useState } from 'react';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { Part } from '../ui/space.ts';
import { Row } from '../ui/text.ts';

interface Props {
  readonly usedFor: Reason['usedFor'];
  /** Empty until chosen: the first of a list would be posted by every hurried hand. */
  readonly value: string;
  readonly onChange: (reasonId: string) => void;
  readonly label?: string;
  readonly hideLabel?: boolean;
}

/** Why something is posted, of the owner's own list; an owner adds to it where they stand. */
export function ReasonChoice({ usedFor, value, onChange, label = 'Reason', hideLabel = true }: Props) {
  const mayAdd = useCan('set-up');
  const reasons = (useQuestion('reasons', {}).data ?? []).filter((reason) => reason.usedFor === usedFor);
  const [added, setAdded] = useState<string | null>(null);
  const add = useCommand('createReason', ({ id }) => {
    onChange(String(id));
    setAdded(null);
  });
  return (
    <Row $wrap $gap={10} $end>
      <Part $width={190}>
        <Choice
          label={label}
          hideLabel={hideLabel}
          value={value}
          onChange={onChange}
          options={[['', 'Choose a reason'], ...reasons.map(({ id, name }): [string, string] => [String(id), name])]}
        />
      </Part>
      {mayAdd &&
        (added === null ? (
          <Button look="ghost" onPress={() => setAdded('')}>
            Add a reason…
          </Button>
        ) : (
          <Part $width={190}>
            <Field
              label="New reason"
              hideLabel
              autoFocus
              placeholder="The reason, then Enter"
              value={added}
              onChange={setAdded}
              error={problemAt(add.error, 'name')}
              onKeyDown={(event) => {
                if (event.key === 'Escape') setAdded(null);
                if (event.key !== 'Enter' || added.trim() === '') return;
                event.preventDefault();
                add.mutate({ body: { name: added.trim(), usedFor } });
              }}
            />
          </Part>
        ))}
    </Row>
  );
}
