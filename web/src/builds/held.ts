import type { BuildRow } from '@yosegi/contract';

/** A repair whose customer has not said yet whether it is worth it to them. */
export const isAsked = ({ repair }: Pick<BuildRow, 'repair'>): boolean => repair?.state === 'asked';

/** Whether something keeps it from going to the bench: parts, or a customer who was asked. */
export const isHeldUp = (row: Pick<BuildRow, 'repair' | 'waiting'>): boolean => isAsked(row) || row.waiting.length > 0;

/** The page of a build, or of the repair that it is the work of. */
export const pageOf = ({ id, repair }: Pick<BuildRow, 'id' | 'repair'>): string =>
  repair ? `/build/repairs/${repair.id}` : `/build/${id}`;
