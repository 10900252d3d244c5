export { Outlook } from './Outlook.tsx';
export { standingWords } from './words.ts';
