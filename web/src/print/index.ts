export { LabelMark } from './paper.tsx';
