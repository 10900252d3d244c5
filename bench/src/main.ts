import { coverageBenches } from './coverage.ts';
import { importBench } from './importing.ts';
import { listBench } from './lists.ts';
import { keyBench, shippingBench } from './orders.ts';
import { peggingBench } from './pegging.ts';
import { postingBench } from './posting.ts';
import { pickBench, proposalBench } from './runs.ts';
import { scarceBench } from './scarce.ts';
import { screenBench } from './screens.ts';

/** Every benchmark with its baseline of the same run. Fails when a promise is broken. */
const results = [
  await postingBench(),
  await pickBench(),
  proposalBench(),
  await shippingBench(),
  await keyBench(),
  ...coverageBenches(),
  ...(await scarceBench()),
  await peggingBench(),
  await importBench(),
  ...(await listBench()),
  ...(await screenBench()),
];
for (const { name, measured, baseline, ratio, promise, holds } of results) {
  console.log(
    `${holds ? 'holds ' : 'BROKEN'}  ${name}\n        ${measured}; ${baseline}; ${ratio}; promised: ${promise}`,
  );
}
process.exitCode = results.every(({ holds }) => holds) ? 0 : 1;
