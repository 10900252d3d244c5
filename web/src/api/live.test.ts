import { type Topic, topics } from '@yosegi/contract';
import { expect, it } from 'vitest';
import { listen } from './live.ts';

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
