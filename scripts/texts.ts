import { textsOf } from './texts/extract.ts';

/** Lists every text that somebody can see, sorted, each with where it stands. */
for (const { text, file, line } of textsOf(process.cwd())) console.log(`${text}\t${file}:${line}`);
