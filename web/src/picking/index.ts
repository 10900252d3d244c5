export { stepsOf } from './steps.ts';
