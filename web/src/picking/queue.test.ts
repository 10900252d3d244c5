import { ApiProblem } from '@yosegi/contract/client';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PickQueue, type Queued } from './queue.ts';

const entry = (says: string, personId = 1) => ({ runId: 7, personId, lines: [], says, at: '2026-11-26T10:00:00Z' });
const refused = (status = 409) =>
  new ApiProblem({ type: 'x', title: 'No', status, code: 'more-than-open', detail: 'Too much.' });

/** A server that does each key once, on a line that may be cut before or after it has heard. */
class Line {
  readonly done: string[] = [];
  private readonly answers = new Map<string, number>();
  kept = '[]';
  constructor(private readonly fails: ('before' | 'after' | null)[] = []) {}
  readonly keeping = {
    read: () => this.kept,
    write: (text: string) => {
      this.kept = text;
    },
  };
  readonly send = async ({ key, says }: Queued) => {
    const fails = this.fails.shift() ?? null;
    if (fails === 'before') throw new TypeError('fetch failed');
    if (!this.answers.has(key)) {
      this.answers.set(key, this.answers.size + 1);
      this.done.push(says);
    }
    if (fails === 'after') throw new TypeError('fetch failed');
    return { id: this.answers.get(key) ?? 0 };
  };
}

describe('picks that wait for the server', () => {
  it('are lost nowhere where this machine has no room for them, and say so', async () => {
    const line = new Line(['before', null, null]);
    const full = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    const queue = new PickQueue({ read: line.keeping.read, write: full }, line.send);
    queue.add(entry('one'));
    await queue.flush(1);
    expect([queue.state().isFull, queue.state().entries.length]).toEqual([true, 1]);
    queue.add(entry('two'));
    await queue.flush(1);
    expect(line.done).toEqual(['one', 'two']);
    expect(queue.state().entries).toEqual([]);
  });

  it('are sent in order, each once, wherever the connection is cut, and survive a reload', async () => {
    const fails = fc.array(fc.constantFrom('before' as const, 'after' as const, null), { maxLength: 30 });
    await fc.assert(
      fc.asyncProperty(fails, fc.array(fc.boolean(), { minLength: 1, maxLength: 12 }), async (cuts, reloads) => {
        const line = new Line([...cuts]);
        let queue = new PickQueue(line.keeping, line.send);
        for (const [index, isReloaded] of reloads.entries()) {
          queue.add(entry(`pick ${index}`));
          await queue.flush(1);
          if (isReloaded) queue = new PickQueue(line.keeping, line.send);
        }
        for (let tries = 0; queue.state().entries.length > 0; tries += 1) {
          expect(tries).toBeLessThan(40);
          await queue.flush(1);
        }
        expect(line.done).toEqual(reloads.map((_, index) => `pick ${index}`));
        expect(queue.state().cutOff).toBe(false);
      }),
    );
  });

  it('go on counting here until what is shown knows of them, and are done once all the same', async () => {
    const line = new Line();
    let isSeen = false;
    const queue = new PickQueue(line.keeping, line.send, async () => {
      if (!isSeen) throw new TypeError('fetch failed');
    });
    queue.add(entry('first'));
    await queue.flush(1);
    expect(queue.state()).toMatchObject({ entries: [{ says: 'first', act: 1, problem: null }], cutOff: true });
    isSeen = true;
    await queue.flush(1);
    expect(queue.state()).toEqual({ entries: [], cutOff: false, isFull: false });
    expect(line.done).toEqual(['first']);
  });

  it('go on after one that is refused, which stays with why until somebody decides', async () => {
    const line = new Line();
    let isRefused = true;
    const queue = new PickQueue(line.keeping, async (own) => {
      if (own.says === 'second' && isRefused) throw refused();
      return line.send(own);
    });
    for (const says of ['first', 'second', 'third']) queue.add(entry(says));
    await queue.flush(1);
    expect(line.done).toEqual(['first', 'third']);
    const [left] = queue.state().entries;
    expect(left).toMatchObject({ says: 'second', problem: { detail: 'Too much.' } });
    queue.takeBack('nobody');
    expect(queue.state().entries).toHaveLength(1);
    isRefused = false;
    queue.again(left?.key ?? '');
    // Under the old key the server would only say once more why it refused.
    expect(queue.state().entries[0]).toMatchObject({ says: 'second', problem: null, tried: false });
    expect(queue.state().entries[0]?.key).not.toBe(left?.key);
    await queue.flush(1);
    expect(line.done).toEqual(['first', 'third', 'second']);
    queue.add(entry('fourth'));
    queue.takeBack(queue.state().entries[0]?.key ?? '');
    await queue.flush(1);
    expect(line.done).not.toContain('fourth');
  });

  it('are undone where they are taken back after the server may have heard of them', async () => {
    const line = new Line(['after', 'before']);
    const undone: string[] = [];
    const queue = new PickQueue(line.keeping, async (own) => {
      const answer = await line.send(own);
      if (own.undoKey !== null) undone.push(own.says);
      return answer;
    });
    queue.add(entry('cut off'));
    await queue.flush(1);
    queue.takeBack(queue.state().entries[0]?.key ?? '');
    expect(queue.state().entries).toMatchObject([{ says: 'cut off', undoKey: expect.any(String) }]);
    await queue.flush(1);
    await queue.flush(1);
    expect([line.done, undone, queue.state().entries]).toEqual([['cut off'], ['cut off'], []]);
  });

  it('are undone where they are taken back while they are sent', async () => {
    const line = new Line();
    const undone: string[] = [];
    const queue: PickQueue = new PickQueue(line.keeping, async (own) => {
      const answer = await line.send(own);
      if (own.undoKey === null) queue.takeBack(own.key);
      else undone.push(own.says);
      return answer;
    });
    queue.add(entry('quick hand'));
    await queue.flush(1);
    expect([line.done, undone, queue.state().entries]).toEqual([['quick hand'], ['quick hand'], []]);
  });

  it('wait for whoever made them, and while the server itself is in trouble', async () => {
    const line = new Line();
    let status = 503;
    const queue = new PickQueue(line.keeping, async (own) => {
      if (status >= 500) throw refused(status);
      return line.send(own);
    });
    queue.add(entry('of Bo', 2));
    queue.add(entry('of Mo', 1));
    await queue.flush(1);
    expect(queue.state()).toMatchObject({ cutOff: true, entries: [{ problem: null }, { problem: null }] });
    status = 200;
    await queue.flush(1);
    expect(line.done).toEqual(['of Mo']);
    await queue.flush(2);
    expect(line.done).toEqual(['of Mo', 'of Bo']);
  });

  it('are none where what was kept cannot be read', () => {
    for (const kept of ['', 'null', '{"a":1}', 'nonsense'])
      expect(new PickQueue({ read: () => kept, write: () => {} }, new Line().send).state().entries).toEqual([]);
  });
});
