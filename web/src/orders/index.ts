export { CustomerPicker } from './CustomerPicker.tsx';
export { EarnedFigures } from './EarnedFigures.tsx';
export { Outlook } from './Outlook.tsx';
export { standingWords } from './words.ts';
