import { EVENTS_PATH, type Topic, topics } from '@yosegi/contract';
import { useEffect, useState } from 'react';
import { refetch } from './client.ts';
import { useSignedOut } from './signedOut.ts';

/** Listens for what other people change. @returns whether the server can be heard */
export function useLive(): boolean {
  const [heard, setHeard] = useState(true);
  const signedOut = useSignedOut();
  useEffect(() => {
    // Without a session there is nothing to hear, and the browser would not try again by itself.
    if (signedOut) return;
    const source = new EventSource(EVENTS_PATH);
    listen(source, setHeard, gather(refetch));
    return () => source.close();
  }, [signedOut]);
  return heard;
}

/** What is heard of an event stream: whether it stands, and which topics to fetch again. */
export function listen(
  source: Pick<EventSource, 'onopen' | 'onerror' | 'onmessage'>,
  setHeard: (heard: boolean) => void,
  fetchAgain: (changed: readonly Topic[]) => void,
): void {
  let lost = false;
  source.onopen = () => {
    setHeard(true);
    // Whatever happened while nobody listened is unknown.
    if (lost) fetchAgain(topics);
    lost = false;
  };
  source.onerror = () => {
    lost = true;
    setHeard(false);
  };
  source.onmessage = (event) => fetchAgain(JSON.parse(event.data) as Topic[]);
}

/** How long a burst of changes is gathered before it is fetched, in milliseconds. */
const BURST = 500;

/** Fetches once what many changes in a row have touched: at once for the first, and once more for those that follow. */
export function gather(fetchAgain: (changed: readonly Topic[]) => void): (changed: readonly Topic[]) => void {
  const pending = new Set<Topic>();
  let resting = false;
  const rest = () => {
    resting = true;
    setTimeout(() => {
      resting = false;
      if (pending.size === 0) return;
      fetchAgain([...pending]);
      pending.clear();
      rest();
    }, BURST);
  };
  return (changed) => {
    if (resting) {
      for (const topic of changed) pending.add(topic);
      return;
    }
    fetchAgain(changed);
    rest();
  };
}
