export { purposeName, stateName } from './behaviour.ts';
export { draftOf, reckon } from './draft.ts';
export { UsedView } from './UsedView.tsx';
