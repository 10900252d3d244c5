import { labelJobStates, labelSymbols } from '@yosegi/core/devices';
import { z } from 'zod';
import { Id, IdParams, PageQuery, pageOf, route } from './common.ts';

/** Symbols that a label can carry. */
export const LabelSymbol = z.enum(labelSymbols);
export type LabelSymbol = z.infer<typeof LabelSymbol>;

/** One label as it is printed. */
export const Label = z.object({
  title: z.string(),
  /** The item's code, which draws its tile; empty where the label is of something else. */
  code: z.string(),
  lines: z.array(z.string()).max(3),
  symbol: LabelSymbol,
  /** What the symbol carries, as printed: GS1 data with its identifiers in parentheses; empty for no symbol. */
  text: z.string(),
});
export type Label = z.infer<typeof Label>;

export const LabelJob = z.object({
  id: Id,
  at: z.string(),
  person: z.string(),
  title: z.string(),
  state: z.enum(labelJobStates),
  printedAt: z.string().nullable(),
  count: z.number().int(),
});
export type LabelJob = z.infer<typeof LabelJob>;
export const LabelJobDetail = LabelJob.extend({ labels: z.array(Label) });
export type LabelJobDetail = z.infer<typeof LabelJobDetail>;

const Copies = z.number().int().min(1).max(200).default(1);
/** What labels are asked for. */
export const LabelsOf = z.union([
  /** Everything that a document brought in: a label for each lot, each serial, each line. */
  z.object({ documentId: Id }).strict(),
  z.object({ itemId: Id, copies: Copies }).strict(),
  z.object({ lotId: Id, copies: Copies }).strict(),
  z.object({ serialIds: z.array(Id).min(1).max(500) }).strict(),
  /** Every bin of a store. */
  z.object({ storeId: Id }).strict(),
  /** Where a parcel goes, or what a shipment sent. */
  z.object({ parcelId: Id }).strict(),
  z.object({ shipmentId: Id }).strict(),
  /** A customer's goods that were taken in. */
  z.object({ repairId: Id }).strict(),
  /** The benches and parcels that a pick run serves, one each. */
  z.object({ runId: Id }).strict(),
  /** What a customer is to send back. */
  z.object({ returnId: Id }).strict(),
]);
export type LabelsOf = z.input<typeof LabelsOf>;

const DEVICES = { tag: 'Devices' } as const;
export const deviceRoutes = {
  labelJobs: route({
    ...DEVICES,
    right: 'look',
    method: 'GET',
    path: '/api/label-jobs',
    summary: 'The label printer’s queue and what it has printed, the newest first',
    query: PageQuery,
    response: pageOf(LabelJob),
  }),
  labelJob: route({
    ...DEVICES,
    right: 'look',
    method: 'GET',
    path: '/api/label-jobs/:id',
    summary: 'One job with its labels, for a preview',
    params: IdParams,
    response: LabelJobDetail,
  }),
  createLabelJob: route({
    ...DEVICES,
    right: 'print',
    method: 'POST',
    path: '/api/label-jobs',
    summary: 'Put labels into the printer’s queue',
    body: z.object({ of: LabelsOf }),
    response: z.object({ id: Id, count: z.number().int() }),
  }),
  endLabelJob: route({
    ...DEVICES,
    right: 'print',
    method: 'POST',
    path: '/api/label-jobs/:id/end',
    summary: 'Mark a print job as printed, or remove it from the queue',
    params: IdParams,
    body: z.object({ as: z.enum(['printed', 'cancelled']) }),
    response: z.object({ id: Id }),
  }),
};
