import { EVENTS_PATH, type Topic, topics } from '@yosegi/contract';
import { useEffect, useState } from 'react';
import { refetch } from './client.ts';

/** Listens for what other people change. @returns whether the server can be heard */
export function useLive(): boolean {
  const [heard, setHeard] = useState(true);
  useEffect(() => {
    const source = new EventSource(EVENTS_PATH);
    listen(source, setHeard, refetch);
    return () => source.close();
  }, []);
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
