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
    return stayTuned(() => new EventSource(EVENTS_PATH), setHeard, gather(refetch));
  }, [signedOut]);
  return heard;
}

/** How long after a refusal the next try is made, in milliseconds. */
const NEXT_TRY = 4000;

type Source = Pick<EventSource, 'onopen' | 'onerror' | 'onmessage' | 'readyState' | 'close'>;

/**
 * Listens until it is ended. A browser takes up a broken stream by itself, and never one that was refused, as by a server
 * that is just starting: that one is opened anew.
 * @returns how to end it
 */
export function stayTuned(
  open: () => Source,
  setHeard: (heard: boolean) => void,
  fetchAgain: (changed: readonly Topic[]) => void,
  nextTry = NEXT_TRY,
): () => void {
  let [source, missed] = [open(), false];
  let timer: ReturnType<typeof setTimeout> | undefined;
  const begin = () => {
    listen(source, setHeard, fetchAgain, missed);
    const { onerror } = source;
    source.onerror = (event) => {
      onerror?.call(source as EventSource, event);
      if (source.readyState !== CLOSED) return;
      missed = true;
      timer = setTimeout(() => {
        source = open();
        begin();
      }, nextTry);
    };
  };
  begin();
  return () => {
    clearTimeout(timer);
    source.close();
  };
}

/** The state of a stream that its browser has given up. */
const CLOSED = 2;

/** What is heard of an event stream: whether it stands, and which topics to fetch again; all of them when some were `lost` before it. */
export function listen(
  source: Pick<EventSource, 'onopen' | 'onerror' | 'onmessage'>,
  setHeard: (heard: boolean) => void,
  fetchAgain: (changed: readonly Topic[]) => void,
  lost = false,
): void {
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
