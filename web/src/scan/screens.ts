import { newKey } from '@yosegi/contract/key';
import { useCallback, useEffect, useRef, useState } from 'react';
import { putScan } from './wedge.ts';

/** How the scanner's stand-in and the screens of one browser talk to each other. */
type Message =
  | { readonly says: 'who is there' }
  | { readonly says: 'here'; readonly screen: Screen }
  | { readonly says: 'gone'; readonly id: string }
  | { readonly says: 'scan'; readonly id: string; readonly text: string }
  | { readonly says: 'took'; readonly id: string; readonly how: Taken };

export interface Screen {
  readonly id: string;
  readonly title: string;
  readonly path: string;
}
type Taken = ReturnType<typeof putScan>;

const CHANNEL = 'yosegi-scanner';
const own = newKey();

const describe = (): Screen => ({
  id: own,
  title: document.querySelector('h1')?.textContent?.slice(0, 80) || document.title,
  path: window.location.pathname,
});

/** Lets this screen take scans that the stand-in sends, unless it is the stand-in's own. */
export function useScreenForScans(pathname: string): void {
  const scanner = pathname.startsWith('/devices/scanner');
  useEffect(() => {
    if (scanner) return;
    const channel = new BroadcastChannel(CHANNEL);
    const post = (message: Message) => channel.postMessage(message);
    channel.onmessage = ({ data }: MessageEvent<Message>) => {
      if (data.says === 'who is there') post({ says: 'here', screen: describe() });
      if (data.says === 'scan' && data.id === own) post({ says: 'took', id: own, how: putScan(data.text) });
    };
    post({ says: 'here', screen: describe() });
    return () => {
      post({ says: 'gone', id: own });
      channel.close();
    };
  }, [scanner]);
}

/** The other open screens, and a way to send one of them a scan. */
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
  return { screens, send, answer };
}
