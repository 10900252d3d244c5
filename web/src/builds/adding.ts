import { later } from '../ui/later.tsx';

/** One more part for a build, fetched when somebody has one to add. */
export const AddPart = later(() => import('./AddPart.tsx'), 'AddPart');
