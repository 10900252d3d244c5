import { useState } from 'react';
import { problemAt, problemOf, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Faint, Row } from '../ui/text.ts';
import { OneField } from './OneField.tsx';

/** Stops one's clock; how long one that ran over night really was is asked. */
export function StopClock({ since }: { since: string }) {
  const format = useFormat();
  const [isAsking, setAsking] = useState(false);
  const stop = useCommand('stopClock', () => setAsking(false));
  const stopNow = (done: boolean) =>
    stop.mutate(
      { body: { done } },
      { onError: (error) => problemOf(error)?.code === 'clock-over-night' && setAsking(true) },
    );
  return (
    <span>
      <Row $gap={4} $wrap>
        <Faint>since {format.moment(since)}</Faint>
        <Button busy={stop.isPending} onPress={() => stopNow(false)}>
          Stop the clock
        </Button>
        <Button look="go" busy={stop.isPending} onPress={() => stopNow(true)}>
          Stop, and it's done
        </Button>
      </Row>
      {isAsking && (
        <OneField
          label="How many minutes was it really?"
          start=""
          numeric
          error={problemAt(stop.error, 'minutes')}
          action="Keep"
          onKeep={(minutes) => stop.mutate({ body: { minutes: minutes.trim() } })}
          onClose={() => setAsking(false)}
        />
      )}
      {!isAsking && <ProblemBox error={stop.error} />}
    </span>
  );
}
