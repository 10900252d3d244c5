import { join, resolve } from 'node:path';
import { z } from 'zod';

/** What the environment may say; everything has a default. */
const Environment = z.object({
  /** The folder of the data. */
  YOSEGI_DATA: z.string().min(1).optional(),
  PORT: z.coerce.number().int().min(0).max(65_535).default(4170),
  YOSEGI_LOG: z.enum(['fatal', 'error', 'warn', 'info', 'debug', 'trace', 'silent']).default('info'),
});

/** The environment says something that cannot be meant. */
export class BadConfiguration extends Error {
  constructor(issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[]) {
    super(issues.map(({ path, message }) => `${path.join('.')}: ${message}`).join('\n'));
    this.name = 'BadConfiguration';
  }
}

export interface Config {
  /** The folder of the data. */
  readonly folder: string;
  readonly port: number;
  readonly log: z.output<typeof Environment>['YOSEGI_LOG'];
}

/**
 * What this process was started with.
 * @param usual the folder of the data where nothing says another
 * @throws BadConfiguration
 */
export function readConfig(usual = 'data', environment: NodeJS.ProcessEnv = process.env): Config {
  const read = Environment.safeParse(environment);
  if (!read.success) throw new BadConfiguration(read.error.issues);
  const { YOSEGI_DATA, PORT, YOSEGI_LOG } = read.data;
  return { folder: resolve(YOSEGI_DATA ?? usual), port: PORT, log: YOSEGI_LOG };
}

/** The database in a data folder. */
export const databaseIn = ({ folder }: Pick<Config, 'folder'>) => join(folder, 'yosegi.sqlite');
