import { type Topic, topics } from '@yosegi/contract';
import { expect, it, vi } from 'vitest';
import { gather, listen, stayTuned } from './live.ts';

it('fetches what it is told of, and everything after it could not hear', () => {
  const source: Pick<EventSource, 'onopen' | 'onerror' | 'onmessage'> = {
    onopen: null,
    onerror: null,
    onmessage: null,
  };
  const heard: boolean[] = [];
  const fetched: (readonly Topic[])[] = [];
  listen(
    source,
    (now) => heard.push(now),
    (changed) => fetched.push(changed),
  );
  const now = source as { onopen(): void; onerror(): void; onmessage(event: { data: string }): void };
  now.onopen();
  expect(fetched).toEqual([]);
  now.onmessage({ data: '["buying","stock"]' });
  now.onerror();
  now.onerror();
  now.onopen();
  now.onopen();
  expect(fetched).toEqual([['buying', 'stock'], topics]);
  expect(heard).toEqual([true, false, false, true, true]);
});

it('fetches a burst of changes twice: what came first, and all the rest together', () => {
  vi.useFakeTimers();
  const fetched: (readonly Topic[])[] = [];
  const hear = gather((changed) => fetched.push(changed));
  hear(['stock']);
  for (let n = 0; n < 500; n += 1) hear(n % 2 ? ['stock', 'builds'] : ['buying']);
  expect(fetched).toEqual([['stock']]);
  vi.advanceTimersByTime(500);
  expect(fetched.at(-1)?.toSorted()).toEqual(['builds', 'buying', 'stock']);
  vi.advanceTimersByTime(5000);
  hear(['items']);
  expect(fetched).toHaveLength(3);
  vi.useRealTimers();
});

it('opens a stream anew that was refused, and fetches what it missed', async () => {
  const opened: { onopen: (() => void) | null; onerror: (() => void) | null; readyState: number; closed: boolean }[] =
    [];
  const open = () => {
    const source = {
      ...{ onopen: null, onerror: null, onmessage: null, readyState: 0, closed: false },
      close() {
        source.closed = true;
      },
    };
    opened.push(source);
    return source;
  };
  const [heard, fetched]: [boolean[], (readonly Topic[])[]] = [[], []];
  const end = stayTuned(
    open as never,
    (now) => heard.push(now),
    (changed) => fetched.push(changed),
    0,
  );
  opened[0]?.onerror?.();
  expect(opened.length).toBe(1);
  Object.assign(opened[0] ?? {}, { readyState: 2 });
  opened[0]?.onerror?.();
  await vi.waitFor(() => expect(opened.length).toBe(2));
  opened[1]?.onopen?.();
  expect(heard).toEqual([false, false, true]);
  expect(fetched).toEqual([topics]);
  end();
  expect(opened[1]?.closed).toBe(true);
});
