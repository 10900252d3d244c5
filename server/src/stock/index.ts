export { listPutRight } from './putright.ts';
