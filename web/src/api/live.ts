import { EVENTS_PATH, type Topic } from '@yosegi/contract';
import { useEffect, useState } from 'react';
import { refetch } from './client.ts';

/** Listens for what other people change. @returns whether the server can be heard */
export function useLive(): boolean {
  const [heard, setHeard] = useState(true);
  useEffect(() => {
    const source = new EventSource(EVENTS_PATH);
    let lost = false;
    source.onopen = () => {
      setHeard(true);
      // Whatever happened while nobody listened is unknown.
      if (lost) refetch(['items', 'places', 'definitions', 'builds', 'stock']);
      lost = false;
    };
    source.onerror = () => {
      lost = true;
      setHeard(false);
    };
    source.onmessage = (event) => refetch(JSON.parse(event.data) as Topic[]);
    return () => source.close();
  }, []);
  return heard;
}
