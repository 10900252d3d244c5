import { z } from 'zod';
import { PageQuery, pageOf, route } from './common.ts';

export const FileKindName = z.enum(['items', 'prices', 'stock', 'definitions', 'customers', 'orders']);
export type FileKindName = z.infer<typeof FileKindName>;

const Fate = z.enum(['new', 'changed', 'same', 'refused']);
export type Fate = z.infer<typeof Fate>;

export const ImportJob = z.object({
  id: z.string(),
  /** Counts every change of this answer. */
  step: z.number().int(),
  kind: FileKindName,
  file: z.string(),
  state: z.enum(['reading', 'ready', 'applying', 'done', 'failed', 'cancelled']),
  /** Rows done of all, while it is reading or applying. */
  done: z.number().int(),
  total: z.number().int(),
  /** Why it failed, in words. */
  problem: z.string().nullable(),
  /** How the file was understood: "CSV, semicolon, Windows-1252" or "XLSX, sheet Items". */
  format: z.string(),
  titles: z.array(z.string()),
  /** For each column of the file the column it is read as; null leaves it out. */
  matching: z.array(z.string().nullable()),
  decimalSign: z.enum(['point', 'comma']),
  /** The first rows as they stand in the file. */
  sample: z.array(z.array(z.string())),
  /** Columns that the kind needs and nothing is matched to. */
  missing: z.array(z.string()),
  counts: z.object({ new: z.number(), changed: z.number(), same: z.number(), refused: z.number() }),
});
export type ImportJob = z.infer<typeof ImportJob>;

export const ImportRow = z.object({
  row: z.number().int(),
  fate: Fate,
  subject: z.string(),
  /** Titles of the columns that change. */
  changes: z.array(z.string()),
  faults: z.array(z.object({ column: z.string().nullable(), reason: z.string() })),
});
export type ImportRow = z.infer<typeof ImportRow>;

const JobParams = z.object({ id: z.string().max(60) });

export const importRoutes = {
  importJob: route({
    method: 'GET',
    path: '/api/imports/:id',
    tag: 'In and out',
    right: 'look',
    summary: 'Progress of an import, and how its file was understood',
    params: JobParams,
    query: z.object({ seen: z.coerce.number().int().optional() }),
    response: ImportJob,
  }),
  importRows: route({
    method: 'GET',
    path: '/api/imports/:id/rows',
    tag: 'In and out',
    right: 'look',
    summary: 'What will become of each row',
    params: JobParams,
    query: PageQuery.extend({ fate: Fate.optional() }),
    response: pageOf(ImportRow),
  }),
  matchColumns: route({
    method: 'POST',
    path: '/api/imports/:id/columns',
    tag: 'In and out',
    right: 'import',
    asks: true,
    summary: 'Read the file again with other columns or another decimal sign',
    params: JobParams,
    body: z.object({
      matching: z.array(z.string().max(80).nullable()).max(200),
      /** Null for what the amounts of the chosen columns speak for. */
      decimalSign: z.enum(['point', 'comma']).nullable().default(null),
    }),
    response: ImportJob,
  }),
  applyImport: route({
    method: 'POST',
    path: '/api/imports/:id/apply',
    tag: 'In and out',
    right: 'import',
    summary: 'Import all rows, or none',
    params: JobParams,
    body: z.object({}),
    response: z.object({ new: z.number().int(), changed: z.number().int(), documentId: z.number().int().nullable() }),
  }),
  cancelImport: route({
    method: 'POST',
    path: '/api/imports/:id/cancel',
    tag: 'In and out',
    right: 'import',
    asks: true,
    summary: 'Stop an import; a file is imported in full or not at all',
    params: JobParams,
    body: z.object({}),
    response: z.object({ id: z.string() }),
  }),
};
