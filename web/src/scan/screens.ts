import { newKey } from '@yosegi/contract/key';
import { useCallback, useEffect, useRef, useState } from 'react';
import { type Format, useFormat } from '../ui/format.ts';
import { putScan, putWeight } from './wedge.ts';

/** How the stand-ins of scanner and scale and the screens of one browser talk to each other. */
type Message =
  | { readonly says: 'who is there' }
  | { readonly says: 'here'; readonly screen: Screen }
  | { readonly says: 'gone'; readonly id: string }
  | { readonly says: 'scan'; readonly id: string; readonly text: string }
  | { readonly says: 'weigh'; readonly id: string; readonly kilos: string }
  | { readonly says: 'took'; readonly id: string; readonly how: Taken };

export interface Screen {
  readonly id: string;
  readonly title: string;
  readonly path: string;
}
export type Taken = ReturnType<typeof putScan>;

const CHANNEL = 'yosegi-scanner';
const own = newKey();

const describe = (): Screen => ({
  id: own,
  title: document.querySelector('h1')?.textContent?.slice(0, 80) || document.title,
  path: window.location.pathname,
});

/** Lets this screen take scans that the stand-in sends, unless it is the stand-in's own. */
export function useScreenForScans(pathname: string): void {
  const format = useFormat();
  const latest = useRef<Format>(format);
  latest.current = format;
  const scanner = /^\/devices\/(scanner|scale)/.test(pathname);
  useEffect(() => {
    if (scanner) return;
    const channel = new BroadcastChannel(CHANNEL);
    const post = (message: Message) => channel.postMessage(message);
    channel.onmessage = ({ data }: MessageEvent<Message>) => {
      if (data.says === 'who is there') post({ says: 'here', screen: describe() });
      if (data.says === 'scan' && data.id === own) post({ says: 'took', id: own, how: putScan(data.text) });
      if (data.says === 'weigh' && data.id === own)
        post({ says: 'took', id: own, how: putWeight(`${latest.current.number(data.kilos, 3)} kg`) });
    };
    post({ says: 'here', screen: describe() });
    return () => {
      post({ says: 'gone', id: own });
      channel.close();
    };
  }, [scanner]);
}

/** The other open screens, and a way to send one of them a scan, or a weight. */
export function useScreens() {
  const [screens, setScreens] = useState<readonly Screen[]>([]);
  const [answer, setAnswer] = useState<Taken | null>(null);
  const channel = useRef<BroadcastChannel | null>(null);
  useEffect(() => {
    const opened = new BroadcastChannel(CHANNEL);
    channel.current = opened;
    opened.onmessage = ({ data }: MessageEvent<Message>) => {
      if (data.says === 'here')
        setScreens((before) => [...before.filter(({ id }) => id !== data.screen.id), data.screen]);
      if (data.says === 'gone') setScreens((before) => before.filter(({ id }) => id !== data.id));
      if (data.says === 'took') setAnswer(data.how);
    };
    const ask = () => opened.postMessage({ says: 'who is there' } satisfies Message);
    ask();
    // A screen may have gone elsewhere meanwhile.
    window.addEventListener('focus', ask);
    return () => {
      window.removeEventListener('focus', ask);
      opened.close();
    };
  }, []);
  const send = useCallback((id: string, text: string) => {
    setAnswer(null);
    channel.current?.postMessage({ says: 'scan', id, text } satisfies Message);
  }, []);
  const weigh = useCallback((id: string, kilos: string) => {
    setAnswer(null);
    channel.current?.postMessage({ says: 'weigh', id, kilos } satisfies Message);
  }, []);
  return { screens, send, weigh, answer };
}
