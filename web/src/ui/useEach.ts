import type { api } from '@yosegi/contract';
import { topics } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { useState } from 'react';
import { ask, problemOf, refetch } from '../api/client.ts';
import { count } from './format.ts';
import { useNotify } from './Notice.ts';

type Name = keyof typeof api;

interface One<N extends Name> {
  /** What it is called where it is refused. */
  readonly name: string;
  readonly input: Input<(typeof api)[N]>;
}

/** Carries out a command for each of several records, one after the other, and says which were refused and why. */
export function useEach<N extends Name>(command: N, what: string, done: string) {
  const notify = useNotify();
  const [busy, setBusy] = useState(false);
  const run = async (all: readonly One<N>[]) => {
    if (busy) return;
    setBusy(true);
    const refused: string[] = [];
    for (const { name, input } of all) {
      try {
        await ask(command, input);
      } catch (error) {
        refused.push(`${name}: ${problemOf(error)?.detail ?? ''}`);
      }
    }
    setBusy(false);
    refetch(topics);
    if (refused.length < all.length) notify({ text: `${count(all.length - refused.length, what)} ${done}.` });
    const more = refused.length > 3 ? ` And ${refused.length - 3} more.` : '';
    if (refused.length > 0) notify({ text: `Refused: ${refused.slice(0, 3).join(' ')}${more}` });
  };
  return { run, busy };
}
