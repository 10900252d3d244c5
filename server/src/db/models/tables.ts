import * as builds from './builds.ts';
import * as buying from './buying.ts';
import type { RowOf } from './columns.ts';
import * as command from './command.ts';
import * as counts from './counts.ts';
import * as coverage from './coverage.ts';
import * as definitions from './definitions.ts';
import * as devices from './devices.ts';
import * as items from './items.ts';
import * as ledger from './ledger.ts';
import * as orders from './orders.ts';
import * as people from './people.ts';
import * as picking from './picking.ts';
import * as places from './places.ts';
import * as repairs from './repairs.ts';
import * as returns from './returns.ts';
import * as stock from './stock.ts';
import * as takeapart from './takeapart.ts';
import * as tasks from './tasks.ts';
import * as tracking from './tracking.ts';

/** Every table of the schema but the migrations' own. */
export const tables = {
  company: people.company,
  person: people.person,
  logo: people.logo,
  store: places.store,
  bin: places.bin,
  unit: items.unit,
  unit_related: items.unitRelated,
  rate: items.rate,
  item: items.item,
  item_pack: items.itemPack,
  item_field: items.itemField,
  item_supplier: items.itemSupplier,
  item_supplier_break: items.itemSupplierBreak,
  picture: items.picture,
  saved_view: items.savedView,
  lot: tracking.lot,
  serial: tracking.serial,
  definition: definitions.definition,
  definition_field: definitions.definitionField,
  revision: definitions.revision,
  revision_line: definitions.revisionLine,
  revision_line_alternate: definitions.revisionLineAlternate,
  build: builds.build,
  build_line: builds.buildLine,
  task: tasks.task,
  task_time: tasks.taskTime,
  clock: tasks.clock,
  finish: builds.finish,
  finish_out: builds.finishOut,
  finish_less: builds.finishLess,
  finish_line: builds.finishLine,
  repair: repairs.repair,
  repair_event: repairs.repairEvent,
  take_apart: takeapart.takeApart,
  take_apart_line: takeapart.takeApartLine,
  priority: coverage.priority,
  cover_question: coverage.coverQuestion,
  supplier: buying.supplier,
  purchase_order: buying.purchaseOrder,
  purchase_order_line: buying.purchaseOrderLine,
  purchase_need: buying.purchaseNeed,
  purchase_for_order: buying.purchaseForOrder,
  receipt: buying.receipt,
  receipt_line: buying.receiptLine,
  price_difference_line: buying.priceDifferenceLine,
  mail: buying.mail,
  customer: orders.customer,
  customer_field: orders.customerField,
  sales_order: orders.salesOrder,
  order_line: orders.orderLine,
  order_change: orders.orderChange,
  order_message: orders.orderMessage,
  parcel: orders.parcel,
  build_for: orders.buildFor,
  order_part: orders.orderPart,
  shipment: orders.shipment,
  shipment_line: orders.shipmentLine,
  goods_return: returns.goodsReturn,
  return_line: returns.returnLine,
  return_piece: returns.returnPiece,
  return_outcome: returns.returnOutcome,
  return_picture: returns.returnPicture,
  reason: stock.reason,
  revalued_standard: stock.revaluedStandard,
  stock_count: counts.stockCount,
  stock_count_line: counts.stockCountLine,
  count_wish: counts.countWish,
  pick_run: picking.pickRun,
  pick_run_goal: picking.pickRunGoal,
  pick_run_claim: picking.pickRunClaim,
  pick_run_pick: picking.pickRunPick,
  label_job: devices.labelJob,
  document_kind: ledger.documentKind,
  value_kind: ledger.valueKind,
  holder_kind: ledger.holderKind,
  document: ledger.document,
  numbered: ledger.numbered,
  movement: ledger.movement,
  document_value: ledger.documentValue,
  balance: ledger.balance,
  item_stock: ledger.itemStock,
  put_right: ledger.putRight,
  series: ledger.series,
  command: command.command,
  audit: command.audit,
  event: command.event,
};

export type Tables = typeof tables;
export type TableName = keyof Tables;
/** A row of a table. What a query selects of it is a `Pick` of this. */
export type Row<T extends TableName> = RowOf<Tables[T]>;
