export { StartButton } from './StartButton.tsx';
