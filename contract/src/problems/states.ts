import { repairWords } from '@yosegi/core/repairs';

/** What something is, and what to do next, by its state; read by `wrong-state`. */
type Steps = Readonly<Record<string, readonly [is: string, next: string]>>;

/**
 * What can be done with each kind of thing where the state it is in allows nothing of what was asked for. Every state is
 * here, because two people at once can come to any of them.
 */
export const nextSteps = {
  build: {
    planned: ['planned', 'Start the build first.'],
    'on-bench': ['on the bench', 'Finish the build, or cancel it and plan a new one.'],
    finished: ['finished', 'Undo its last finish, or plan a new build.'],
    cancelled: ['cancelled', 'Plan a new build.'],
  },
  order: {
    quote: ['a quote', 'Confirm the order first.'],
    confirmed: ['confirmed', 'Open the order to continue with it.'],
    cancelled: ['cancelled', 'Use “Repeat order” to write the order again.'],
    shipped: ['shipped', 'Nothing is left to pick for this order.'],
  },
  'purchase order': {
    draft: ['a draft', 'Send the purchase order first.'],
    sent: ['sent', 'To change what you ordered, cancel the purchase order and write a new one.'],
    confirmed: ['confirmed', 'To change what you ordered, cancel the purchase order and write a new one.'],
    cancelled: ['cancelled', 'Write a new purchase order.'],
  },
  repair: {
    'taken-in': [repairWords['taken-in'], 'Start the repair first.'],
    asked: [repairWords.asked, 'Record the customer’s agreement first.'],
    agreed: [repairWords.agreed, 'Start the repair first.'],
    'on-bench': [repairWords['on-bench'], 'Finish the repair first.'],
    ready: [repairWords.ready, 'Give the repair back, or undo its finish.'],
    'given-back': [repairWords['given-back'], 'Choose “Not collected after all” first.'],
  },
  return: {
    announced: ['announced', 'Receive the return first.'],
    waiting: ['already received', 'Open the return to process its items.'],
    settled: ['already received', 'To change the return, undo its documents.'],
    'called-off': ['cancelled', 'Take in a new return.'],
  },
  count: {
    open: ['open', 'Approve the count first.'],
    approved: ['approved', 'Start a new count.'],
    cancelled: ['cancelled', 'Start a new count.'],
  },
  revision: {
    draft: ['a draft', 'Put the draft in use first.'],
    'in-use': ['in use', 'Start a new draft to change it.'],
    retired: ['retired', 'Start a new draft to change it.'],
  },
  import: {
    reading: ['still being read', 'Try again when all rows are read.'],
    ready: ['ready', 'Check its rows, then import the file.'],
    applying: ['being imported', 'Try again when the import is finished.'],
    done: ['finished', 'Choose the file again to import it once more.'],
    failed: ['stopped', 'Choose the file again.'],
    cancelled: ['cancelled', 'Choose the file again.'],
  },
} as const satisfies Record<string, Steps>;

/** What is wrong and what to do, in two sentences. */
export function stepAfter(kind: string, number: string, state: string): string {
  const [is, next] = (nextSteps as Record<string, Steps>)[kind]?.[state] ?? [state, 'Reload the page.'];
  const name = kind.charAt(0).toUpperCase() + kind.slice(1);
  return `${number === '' ? `This ${kind}` : `${name} ${number}`} is ${is}. ${next}`;
}
