import { createHash } from 'node:crypto';
import type { Person, Topic } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { Database, Writer } from '../db/database.ts';
import type { Clock } from './clock.ts';
import type { Doing } from './doing.ts';
import type { Live } from './live.ts';

/** What commands are carried out on. */
export interface Carrier {
  readonly database: Database;
  readonly clock: Clock;
  readonly live: Live;
}

export interface CarryingOut {
  /** Its route, by name. */
  readonly name: string;
  /** The idempotency key that came with it. */
  readonly key: unknown;
  readonly requestId: string;
  readonly params: unknown;
  /** What the audit keeps of what was sent, and what tells one command from another under the same key. */
  readonly body: unknown;
  readonly person: Person | null;
  run(doing: Pick<Doing, 'tx' | 'changed' | 'settled'> & { person: Person | null }): Promise<unknown>;
}

/**
 * Carries a command out once: its rows, its answer under the idempotency key, the audit entry and the event for other
 * browsers stand in one transaction. The same key again gets the first answer.
 * @throws Refusal `key-missing`, `key-reused`
 */
export async function carryOut(carrier: Carrier, command: CarryingOut): Promise<unknown> {
  const { database, clock, live } = carrier;
  const { name, key, requestId, params, body, person, run } = command;
  if (typeof key !== 'string' || key.length < 8 || key.length > 100) throw new Refusal('key-missing');
  const told = JSON.stringify(body ?? null);
  const hash = createHash('sha256')
    .update(JSON.stringify([name, person?.id ?? null, params]))
    .update(told)
    .digest('base64');
  const at = clock.now().toISOString();
  const topics = new Set<Topic>();
  const waiting: ((committed: boolean) => void)[] = [];
  const settle = (committed: boolean) => {
    for (const then of waiting) then(committed);
  };
  const work = async (tx: Writer) => {
    const before = await tx.driver.one<{ request_hash: string; response: string }>(
      'SELECT request_hash, response FROM command WHERE key = $1',
      [key],
    );
    if (before && before.request_hash !== hash) throw new Refusal('key-reused');
    if (before) return { answer: JSON.parse(before.response), eventId: 0 };
    const answer = await run({
      tx,
      person,
      changed: (...more) => {
        for (const topic of more) topics.add(topic);
      },
      settled: (then) => void waiting.push(then),
    });
    const person_id = person?.id ?? null;
    await tx.driver.insert('command', {
      key,
      route: name,
      person_id,
      request_hash: hash,
      response: JSON.stringify(answer),
      at,
    });
    const entry = {
      at,
      person_id,
      action: name,
      params: JSON.stringify(params ?? null),
      body: told,
      request_id: requestId,
    };
    await tx.driver.insert('audit', entry);
    const eventId = topics.size > 0 ? await tx.driver.insert('event', { at, topics: JSON.stringify([...topics]) }) : 0;
    return { answer, eventId };
  };
  const done = await database.write(work).catch((error: unknown) => {
    settle(false);
    throw error;
  });
  settle(true);
  if (done.eventId > 0) live.announce(done.eventId, [...topics]);
  return done.answer;
}

/** How long an answer is kept for a command that is sent again, in days. */
const ANSWERS_KEPT = 7;

/** Forgets old answers when the day turns: nobody sends a command again after a week. */
export async function forgetOldAnswers(tx: Writer, now: Date): Promise<readonly Topic[]> {
  const before = new Date(now.getTime() - ANSWERS_KEPT * 24 * 60 * 60 * 1000);
  await tx.driver.run('DELETE FROM command WHERE at < $1', [before.toISOString()]);
  return [];
}
