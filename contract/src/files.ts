import { LARGEST_FILE } from '@yosegi/core/exchange';
import { z } from 'zod';
import { Day, IdParams } from './common.ts';
import { FileKindName } from './exchange.ts';
import { EVENTS_PATH } from './live.ts';
import type { Right } from './rights.ts';

/** A request whose body or answer is a file or a stream, and no JSON. */
export interface FileRoute {
  readonly method: 'GET' | 'POST' | 'PUT';
  readonly path: string;
  readonly tag: string;
  readonly summary: string;
  readonly right: Right;
  readonly params?: z.ZodType;
  readonly query?: z.ZodType;
  /** The most bytes of the file that is sent, as `application/octet-stream`. */
  readonly takes?: number;
  /** What it changes is kept under an idempotency key. */
  readonly isCommand?: true;
  /** The media types it may answer with. */
  readonly gives: readonly string[];
}

export const XLSX_TYPE = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** The largest picture, in bytes. */
export const LARGEST_PICTURE = 12 * 1024 * 1024;

/** The largest list that is made a file of as it is shown, in bytes of JSON. */
export const LARGEST_TABLE = 24 * 1024 * 1024;
/** A list as it is shown: what stands above its columns, and what its cells say, amounts as plain decimals. */
export const ShownTable = z.object({
  name: z.string().trim().min(1).max(60),
  columns: z
    .array(z.object({ title: z.string().max(80), amount: z.boolean() }))
    .min(1)
    .max(60),
  rows: z.array(z.array(z.string().max(2000)).max(60)).max(100_000),
  /** The day it tells of, where that is not today. */
  day: Day.optional(),
});
export type ShownTable = z.infer<typeof ShownTable>;

export const TABLE_PATH = '/api/table-file';
export const IMPORTS_PATH = '/api/imports';
export const EXPORTS_PATH = '/api/exports';
const PICTURE_PATH = '/api/items/:id/picture';
const RETURN_PICTURE_PATH = '/api/returns/:id/picture';
export const LOGO_PATH = '/api/company/logo';
const ORDER_PATH = '/api/purchase-orders/:id/order';
const RESPONSE_PATH = '/api/orders/:id/response.xml';
const DESPATCH_PATH = '/api/shipments/:id/despatch.xml';
const LABELS_PATH = '/api/label-jobs/:id/labels.pdf';

const at = (path: string, id: number) => path.replace(':id', String(id));
/** @param hash names the content, so that the browser may keep it for ever */
export const picturePath = (itemId: number, hash?: string) => at(PICTURE_PATH, itemId) + (hash ? `?v=${hash}` : '');
/** What goods that came back looked like. */
export const returnPicturePath = (returnId: number, hash?: string) =>
  at(RETURN_PICTURE_PATH, returnId) + (hash ? `?v=${hash}` : '');
/** Where an order is read as a file: `csv` for a spreadsheet, `xml` as a UBL 2.3 Order. */
export const orderFilePath = (id: number, format: 'csv' | 'xml') => `${at(ORDER_PATH, id)}.${format}`;
/** Where what an order was promised is read as a UBL 2.3 OrderResponse. */
export const responsePath = (orderId: number) => at(RESPONSE_PATH, orderId);
/** Where what has left is read as a UBL 2.3 DespatchAdvice. */
export const despatchPath = (shipmentId: number) => at(DESPATCH_PATH, shipmentId);
/** Where the printer puts a job out as PDF, a page a label. */
export const labelPdfPath = (id: number) => at(LABELS_PATH, id);

const fileRoute = <const R extends FileRoute>(definition: R) => definition;

/** Every request the server answers beside the table of JSON routes. */
export const files = {
  events: fileRoute({
    method: 'GET',
    path: EVENTS_PATH,
    tag: 'System',
    right: 'look',
    summary: 'What changes from now on, as server-sent events: each is a JSON array of topics',
    gives: ['text/event-stream'],
  }),
  picture: fileRoute({
    method: 'GET',
    path: PICTURE_PATH,
    tag: 'Items',
    right: 'look',
    summary: 'An item’s picture',
    params: IdParams,
    query: z.object({ v: z.string().max(40).optional() }),
    gives: ['image/webp'],
  }),
  setPicture: fileRoute({
    method: 'PUT',
    path: PICTURE_PATH,
    tag: 'Items',
    right: 'define',
    summary: 'Give an item a picture',
    params: IdParams,
    takes: LARGEST_PICTURE,
    isCommand: true,
    gives: ['application/json'],
  }),
  returnPicture: fileRoute({
    method: 'GET',
    path: RETURN_PICTURE_PATH,
    tag: 'Take apart',
    right: 'look',
    summary: 'What goods that came back looked like',
    params: IdParams,
    query: z.object({ v: z.string().max(40).optional() }),
    gives: ['image/webp'],
  }),
  setReturnPicture: fileRoute({
    method: 'PUT',
    path: RETURN_PICTURE_PATH,
    tag: 'Take apart',
    right: 'take-apart',
    summary: 'Save a picture of goods that came back',
    params: IdParams,
    takes: LARGEST_PICTURE,
    isCommand: true,
    gives: ['application/json'],
  }),
  logo: fileRoute({
    method: 'GET',
    path: LOGO_PATH,
    tag: 'People',
    right: 'look',
    summary: 'The logo that papers carry',
    query: z.object({ v: z.string().max(40).optional() }),
    gives: ['image/webp'],
  }),
  setLogo: fileRoute({
    method: 'PUT',
    path: LOGO_PATH,
    tag: 'People',
    right: 'set-up',
    summary: 'Give papers a logo',
    takes: LARGEST_PICTURE,
    isCommand: true,
    gives: ['application/json'],
  }),
  orderCsv: fileRoute({
    method: 'GET',
    path: `${ORDER_PATH}.csv`,
    tag: 'Buying',
    right: 'look',
    summary: 'A purchase order for a spreadsheet',
    params: IdParams,
    gives: ['text/csv'],
  }),
  orderUbl: fileRoute({
    method: 'GET',
    path: `${ORDER_PATH}.xml`,
    tag: 'Buying',
    right: 'look',
    summary: 'A purchase order as a UBL 2.3 Order',
    params: IdParams,
    gives: ['application/xml'],
  }),
  orderResponse: fileRoute({
    method: 'GET',
    path: RESPONSE_PATH,
    tag: 'Orders',
    right: 'look',
    summary: 'What the customer is promised of an order, as a UBL 2.3 OrderResponse',
    params: IdParams,
    gives: ['application/xml'],
  }),
  despatchAdvice: fileRoute({
    method: 'GET',
    path: DESPATCH_PATH,
    tag: 'Orders',
    right: 'look',
    summary: 'What has left with a shipment, as a UBL 2.3 DespatchAdvice',
    params: IdParams,
    gives: ['application/xml'],
  }),
  upload: fileRoute({
    method: 'POST',
    path: IMPORTS_PATH,
    tag: 'Exchange',
    right: 'import',
    summary: 'Send a CSV or XLSX file to be read',
    query: z.object({ kind: FileKindName, name: z.string().max(300).default('file') }),
    takes: LARGEST_FILE,
    gives: ['application/json'],
  }),
  download: fileRoute({
    method: 'GET',
    path: EXPORTS_PATH,
    tag: 'Exchange',
    right: 'look',
    summary: 'Export all records of a kind as a file',
    query: z.object({ kind: FileKindName, format: z.enum(['csv', 'xlsx']).default('csv') }),
    gives: ['text/csv', XLSX_TYPE],
  }),
  table: fileRoute({
    method: 'POST',
    path: TABLE_PATH,
    tag: 'Exchange',
    right: 'look',
    summary: 'A list as it is shown (ShownTable, as JSON), as a file',
    query: z.object({ format: z.enum(['csv', 'xlsx']) }),
    takes: LARGEST_TABLE,
    gives: ['text/csv', XLSX_TYPE],
  }),
  labelPdf: fileRoute({
    method: 'GET',
    path: LABELS_PATH,
    tag: 'Devices',
    right: 'look',
    summary: 'Labels as PDF, a page a label',
    params: IdParams,
    gives: ['application/pdf'],
  }),
};
