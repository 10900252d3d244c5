import { Refusal } from '@yosegi/core/refusal';
import type { Message } from '@yosegi/core/ubl';
import type { WorkThreads } from './thread.ts';

/**
 * Reads what somebody sent in a thread of its own, so that nothing it holds can hold up anybody else.
 * @throws Refusal `ubl-unreadable`, and what the threads refuse
 */
export async function readInThread(threads: WorkThreads, personId: number, content: string): Promise<Message> {
  try {
    return await threads.run<Message>(personId, async () => ({ ask: 'message', content }));
  } catch (error) {
    if (error instanceof Refusal && error.code === 'ubl-unreadable')
      throw new Refusal('ubl-unreadable', error.facts as unknown as { why: string }, 'content');
    throw error;
  }
}
