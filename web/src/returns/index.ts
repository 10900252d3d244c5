export { CameBack } from './CameBack.tsx';
