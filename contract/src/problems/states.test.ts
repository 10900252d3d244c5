import { buildStates } from '@yosegi/core/builds';
import { keptOrderStates } from '@yosegi/core/buying';
import { countStates } from '@yosegi/core/counts';
import { revisionStates } from '@yosegi/core/definitions';
import { orderStates } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import { repairStates } from '@yosegi/core/repairs';
import { returnStates } from '@yosegi/core/returns';
import { expect, it } from 'vitest';
import { ImportJob } from '../exchange.ts';
import { wordsOf } from './index.ts';
import { nextSteps } from './states.ts';

it('knows the next step for every state that anything can be in', () => {
  const states = {
    build: buildStates,
    order: [...orderStates, 'shipped'],
    'purchase order': keptOrderStates,
    repair: repairStates,
    return: returnStates,
    count: countStates,
    revision: revisionStates,
    import: ImportJob.shape.state.options,
  };
  expect(Object.entries(nextSteps).map(([kind, steps]) => [kind, Object.keys(steps).sort()])).toEqual(
    Object.entries(states).map(([kind, each]) => [kind, [...each].sort()]),
  );
});

it('says what is in the way and what to do next, by its number where it has one', () => {
  const refused = (kind: string, number: string, state: string) =>
    wordsOf(new Refusal('wrong-state', { kind, number, state }));
  expect(refused('build', 'B-0120', 'planned')).toBe('Build B-0120 is planned. Start the build first.');
  expect(refused('import', '', 'reading')).toBe('This import is still being read. Try again when all rows are read.');
});
