import { useState } from 'react';
import { Link } from 'react-router';
import { problemAt, useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { KeyValue } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { Muted, Row } from '../ui/text.ts';
import { jobPath } from './paths.ts';

interface Props {
  readonly kind: 'build' | 'purchase';
  readonly id: number;
  readonly jobTag: string;
}

/** The job that a record is booked under, to be seen and set. */
export function JobTagField({ kind, id, jobTag }: Props) {
  const mayPlan = useCan('plan');
  const [text, setText] = useState<string | null>(null);
  const set = useCommand('setJobTag', () => setText(null));
  if (text === null)
    return (
      <KeyValue>
        <span>Job tag {jobTag ? <Link to={jobPath(jobTag)}>{jobTag}</Link> : <Muted>none</Muted>}</span>
        {mayPlan && (
          <Button look="ghost" onPress={() => setText(jobTag)}>
            {jobTag ? 'Change' : 'Set'}
          </Button>
        )}
      </KeyValue>
    );
  const keep = () => set.mutate({ body: { kind, id, jobTag: text.trim() } });
  return (
    <>
      <Row $gap={6} $end>
        <Part $grow>
          <Field
            label="Job tag"
            autoFocus
            value={text}
            onChange={setText}
            error={problemAt(set.error, 'jobTag')}
            onKeyDown={(event) => {
              if (event.key === 'Enter') keep();
              if (event.key === 'Escape') setText(null);
            }}
          />
        </Part>
        <Button busy={set.isPending} onPress={keep}>
          Save
        </Button>
      </Row>
      <ProblemBox error={set.error} shownAt={['jobTag']} />
    </>
  );
}
