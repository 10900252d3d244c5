import { problemAt, problemOf, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Faint, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { OneField } from './OneField.tsx';

/** Stops one's clock; how long one that ran over night really was is asked. */
export function StopClock({ since }: { since: string }) {
  const format = useFormat();
  const screen = useTypedScreen('clock');
  const [isAsking, setAsking] = useTyped(screen, 'asking', false);
  const close = () => {
    setAsking(false);
    screen.forget();
  };
  const stop = useCommand('stopClock', close, screen.forget);
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
          Stop and mark as done
        </Button>
      </Row>
      {isAsking && (
        <OneField
          label="Actual minutes"
          screen={screen}
          start=""
          numeric
          error={problemAt(stop.error, 'minutes')}
          action="Save"
          onKeep={(minutes) => stop.mutate({ body: { minutes: minutes.trim() } })}
          onClose={close}
        />
      )}
      {!isAsking && <ProblemBox error={stop.error} />}
    </span>
  );
}
