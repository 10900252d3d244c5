export { LabelButton } from './LabelButton.tsx';
