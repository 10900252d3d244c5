import { dayOf } from '@yosegi/core/days';

/** Today as an ISO day, as this machine counts days. */
export const today = (): string => dayOf(new Date());
