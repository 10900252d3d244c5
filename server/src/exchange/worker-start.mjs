// A thread begins without the loader that lets Node run TypeScript; it registers it before the first source is read.
import { register } from 'tsx/esm/api';

register();
await import('./worker.ts');
