import styled from 'styled-components';
import { Button } from '../ui/Button.tsx';
import { count } from '../ui/format.ts';
import { Row } from '../ui/text.ts';
import { pickQueue } from './pickQueue.ts';
import type { Queued } from './queue.ts';

const Box = styled.div`margin: 10px 12px 0; background: var(--sheet); color: var(--ink); border-left: 5px solid var(--coming); border-radius: 3px; padding: 10px 14px;`;
const Refusal = styled(Box)`border-left-color: var(--short);`;

/** What waits for the connection, and what was refused meanwhile with its ways out. */
export function Refused({
  queue,
  isCutOff,
  isFull,
  personId,
}: {
  queue: readonly Queued[];
  isCutOff: boolean;
  isFull: boolean;
  personId: number;
}) {
  const waiting = queue.filter(({ problem, act }) => problem === null && act === null);
  const ofOthers = waiting.filter((entry) => entry.personId !== personId);
  const own = waiting.length - ofOthers.length;
  return (
    <>
      {isFull && <Box role="alert">This device is out of storage. Keep this page open until everything is sent.</Box>}
      {isCutOff && (
        <Box role="status">
          <b>No connection.</b>{' '}
          {own === 0
            ? 'Continue picking: nothing is lost.'
            : `Continue picking: ${count(own, 'pick')} to send from this device.`}
        </Box>
      )}
      {ofOthers.length > 0 && (
        <Box role="status">
          {count(ofOthers.length, 'pick')} by someone else {ofOthers.length === 1 ? 'is' : 'are'} kept on this device
          until they sign in.
        </Box>
      )}
      {queue
        .filter(({ problem }) => problem !== null)
        .map(({ key, says, problem }) => (
          <Refusal key={key} role="alert">
            <b>{says}</b> was not taken. {problem?.detail}
            <Row $gap={8} $top={8}>
              <Button onPress={() => retry(key, personId)}>Try again</Button>
              <Button look="danger" onPress={() => pickQueue.drop(key)}>
                Discard this pick
              </Button>
            </Row>
          </Refusal>
        ))}
    </>
  );
}

function retry(key: string, personId: number): void {
  pickQueue.again(key);
  void pickQueue.flush(personId);
}
