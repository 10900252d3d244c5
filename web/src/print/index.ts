export { CustomerPaper } from './CustomerPaper.tsx';
export { type PaperKind, paperKinds, paperTitles } from './customerPaper.ts';
export { LabelMark } from './paper.tsx';
