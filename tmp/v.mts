import { Database } from '../server/src/db/database.ts';
import { verifyDatabase } from '../server/src/db/verify.ts';
const d = await Database.open('data/demo/yosegi.sqlite'); console.log(await verifyDatabase(d.reader)); await d.close();
