import { mkdirSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { demoOnce } from '@yosegi/demo/once';

/** Makes the demo business once for all workers, unless a suite before this one has. */
export default async function before(): Promise<void> {
  if (process.env.YOSEGI_DEMO === undefined) {
    mkdirSync('test-results', { recursive: true });
    process.env.YOSEGI_DEMO = resolve('test-results/demo.sqlite');
    // One of yesterday, or of another schema, is another business.
    rmSync(process.env.YOSEGI_DEMO, { force: true });
  }
  await demoOnce();
}
