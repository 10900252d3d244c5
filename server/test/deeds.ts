import { api } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { parseDecimal, type Quantity } from '@yosegi/core/number';
import { writeOrderResponse } from '@yosegi/core/ubl';
import type { Ground } from './ground.ts';
import { partLine } from './harness.ts';

type Name = keyof typeof api;
/** What does something, rather than asks. */
export type Deed = {
  [N in Name]: (typeof api)[N] extends { readonly method: 'GET' } | { readonly asks: true } ? never : N;
}[Name];

/** What is sent, once for every field of it that is to be another, with that one changed. */
export function* withOther(value: unknown, other: (name: string, value: unknown) => unknown): Generator<unknown> {
  if (Array.isArray(value)) {
    for (const [at, one] of value.entries()) for (const changed of withOther(one, other)) yield value.with(at, changed);
  } else if (value && typeof value === 'object') {
    for (const [name, one] of Object.entries(value)) {
      const changed = other(name, one);
      if (changed !== undefined) yield { ...value, [name]: changed };
      for (const inside of withOther(one, other)) yield { ...value, [name]: inside };
    }
  }
}

/** Every deed of the contract, once: what is sent for it to succeed. A route that is left out does not compile. */
export const deeds: { readonly [D in Deed]: (at: Ground) => Promise<Input<(typeof api)[D]>> } = {
  updateCompany: async ({ server }) => {
    const { company } = await server.call(api.session, {});
    const { name, address, email, version } = company;
    return { body: { name: `${name}!`, address, email, version } };
  },
  setUp: async () => ({ body: { step: 2 } }),
  createWorker: async (at) => ({ body: { name: at.code(), initials: 'NW', role: 'bench', active: true } }),
  updateWorker: async (at) => {
    const body = { name: at.code(), initials: 'UW', role: 'bench' as const, active: true };
    const { id, version } = await at.server.call(api.createWorker, { body });
    return { params: { id }, body: { ...body, active: false, version } };
  },
  updatePapers: async ({ server }) => {
    const { company } = await server.call(api.session, {});
    return { body: { size: 'Letter', head: 'Hello', foot: '', columns: [], version: company.version } };
  },
  removeLogo: async (at) => {
    await at.picture('/api/company/logo');
    return {};
  },
  signIn: async () => ({ body: { personId: 1 } }),
  createRate: async (at) => ({ body: { name: at.code(), perHour: '30' } }),
  createItem: async (at) => ({ body: itemBody(at.code()) }),
  updateItem: async (at) => {
    const { id, code, version } = await at.item();
    return { params: { id }, body: { ...itemBody(code), name: 'Renamed', version } };
  },
  setPrices: async (at) => {
    const { id, version } = await at.item();
    return { params: { id }, body: { sellPrice: '7', version } };
  },
  archiveItem: async (at) => {
    const { id, version } = (await at.product()).item;
    return { params: { id }, body: { archived: true, version } };
  },
  deleteItem: async (at) => ({ params: (await at.pictured()).params }),
  removePicture: async (at) => {
    const { params, item } = await at.pictured();
    await at.define(await at.shop.item(`ZZ-${at.code()}`, { source: 'made' }), [partLine(item, '1')]);
    return { params };
  },
  createUnit: async (at) => ({ body: { code: at.code().toLowerCase(), name: 'Unit', decimals: 0, related: [] } }),
  updateUnit: async (at) => {
    const body = { code: at.code().toLowerCase(), name: 'Unit', decimals: 0, related: [] };
    const { id, version } = await at.server.call(api.createUnit, { body });
    const product = await at.item({ source: 'made' });
    await at.define(product, [partLine(await at.stocked('9', { unitId: id }), '1')]);
    await at.shop.plan(product, '1');
    return { params: { id }, body: { ...body, code: at.code().toLowerCase(), version } };
  },
  saveView: async (at) => ({ body: { list: 'items', name: at.code(), search: 'q=a' } }),
  deleteView: async (at) => {
    const { id } = await at.server.call(api.saveView, { body: { list: 'items', name: at.code(), search: 'q=a' } });
    return { params: { id } };
  },
  createStore: async (at) => ({ body: { code: at.code(), name: 'Another' } }),
  updateStore: async (at) => {
    const { id } = await at.server.call(api.createStore, { body: { code: at.code(), name: 'Another' } });
    const bin = await at.server.call(api.createBin, { params: { id }, body: { code: 'Z1', pickingOrder: 1 } });
    const line = { itemId: (await at.item({ homeBinId: bin.id })).id, binId: bin.id, quantity: '1', unitCost: '1' };
    await at.server.call(api.receive, { body: { kind: 'receipt', lines: [line] } });
    const store = (await at.server.call(api.stores, {})).find((one) => one.id === id);
    const bins = [{ id: bin.id, code: 'Z2', kind: 'shelf' as const }];
    return { params: { id }, body: { code: at.code(), name: 'Renamed', bins, version: store?.version ?? 0 } };
  },
  createBin: async (at) => ({ params: { id: at.shop.store.id }, body: { code: at.code(), pickingOrder: 9 } }),
  applyImport: async (at) => ({ params: { id: (await at.brought()).id }, body: {} }),
  createDefinition: async (at) => ({ body: { itemId: (await at.item({ source: 'made' })).id } }),
  startRevision: async (at) => ({ params: { id: (await at.product()).definitionId }, body: {} }),
  saveRevision: async (at) => {
    const { id, version } = await at.draft();
    const lines = [partLine(at.pin, '1', { alternates: [{ itemId: at.knob.id, ratio: '1' }] })];
    return { params: { id }, body: { version, outputQuantity: '1', lines } };
  },
  putInUse: async (at) => ready(at),
  holdBack: async (at) => {
    const { params, body } = await ready(at);
    const later = { ...body, from: '2026-12-24' };
    const { version } = await at.server.call(api.putInUse, { params, body: later });
    return { params, body: { version } };
  },
  retireRevision: async (at) => {
    const { id, version } = (await at.product()).revision;
    return { params: { id }, body: { version } };
  },
  setBehaviour: async (at) => {
    const { definitionId: id } = await at.product();
    const { behaviour, version } = await at.read('definition', id);
    return { params: { id }, body: { ...behaviour, benchDays: 3, version } };
  },
  setDefinitionFields: async (at) => {
    const { definitionId: id } = await at.product();
    const { version } = await at.read('definition', id);
    return { params: { id }, body: { version, fields: [{ name: 'Colour', value: 'red' }] } };
  },
  replacePart: async (at) => {
    const part = await at.item();
    const item = await at.item({ source: 'made' });
    const id = await at.define(item, [partLine(part, '1')]);
    return { body: { partId: part.id, byId: at.pin.id, ratio: '1', definitionIds: [id] } };
  },
  discardRevision: async (at) => ({ params: { id: (await at.draft()).id } }),
  settleWish: async (at) => {
    const { params, stop } = await at.run();
    const body = { binId: stop?.binId ?? 0, itemId: stop?.item.id ?? 0 };
    await at.server.call(api.notThere, { params, body });
    const wishes = await at.server.call(api.countWishes, {});
    return { params: { id: wishes[0]?.id ?? 0 }, body: {} };
  },
  beginCount: async (at) => ({ body: { binIds: [at.bin()], q: (await at.stocked()).code } }),
  countLine: async (at) => ({ params: await (await at.count()).line('2'), body: { counted: '1', serials: [] } }),
  countCost: async (at) => ({ params: await (await at.count()).line('5'), body: { unitCost: '4' } }),
  addCountLine: async (at) => {
    const { params } = await at.count();
    return { params, body: { itemId: (await at.item()).id, binId: at.bin() } };
  },
  approveCount: async (at) => {
    const { params, item, line, version } = await at.count();
    const order = await at.order(item);
    const { id } = await at.server.call(api.makeRun, { body: { goals: [{ kind: 'order', id: order.id }] } });
    await at.server.call(api.notThere, { params: { id }, body: { binId: at.bin(), itemId: item.id } });
    await line('2');
    return { params, body: { version: await version() } };
  },
  cancelCount: async (at) => {
    const { params, version } = await at.count();
    return { params, body: { version: await version() } };
  },
  setPriorities: async (at) => {
    const { id } = await at.plan();
    return { body: { lines: [{ kind: 'build', id, was: null, rank: -1, reason: 'Fair' }] } };
  },
  keepQuestion: async (at) => ({ body: { name: at.code(), address: '?make=1x2' } }),
  forgetQuestion: async (at) => {
    const { id } = await at.server.call(api.keepQuestion, { body: { name: at.code(), address: '?make=1x2' } });
    return { params: { id } };
  },
  createCustomer: async (at) => ({ body: { code: at.code(), name: 'Somebody' } }),
  updateCustomer: async (at) => {
    const code = at.code();
    const { id, version } = await at.server.call(api.createCustomer, { body: { code, name: 'Somebody' } });
    return { params: { id }, body: { code, name: 'Somebody else', version } };
  },
  archiveCustomer: async (at) => {
    const { id, version } = await at.server.call(api.createCustomer, { body: { code: at.code(), name: 'Somebody' } });
    return { params: { id }, body: { archived: true, version } };
  },
  createOrder: async (at) => ({
    body: {
      customerId: at.customerId,
      lines: [
        { itemId: at.pin.id, quantity: '1', price: '3' },
        { itemId: at.kit.id, quantity: '1', contents: [{ position: 0, itemId: at.knob.id, amount: '3' }] },
      ],
      confirm: true,
    },
  }),
  saveOrder: async (at) => {
    const { id, version, lines } = await at.order();
    const changed = [{ id: lines[0]?.id ?? null, itemId: at.pin.id, quantity: '3', price: '3' }];
    return { params: { id }, body: { customerId: at.customerId, lines: changed, version } };
  },
  confirmOrder: async (at) => {
    const { id, version } = await at.order(at.pin, '2', false);
    return { params: { id }, body: { version } };
  },
  copyOrder: async (at) => ({ params: { id: (await at.order()).id }, body: {} }),
  splitOrder: async (at) => {
    const { id, version, lines } = await at.order();
    return { params: { id }, body: { version, lines: [{ lineId: lines[0]?.id ?? 0, quantity: '1' }] } };
  },
  cancelOrder: async (at) => {
    const { id, version } = await at.order();
    return { params: { id }, body: { version, reason: 'Too late' } };
  },
  dropOrder: async (at) => {
    const { id, version, lineId } = await at.shipped('1', '2');
    return { params: { id }, body: { version, reason: 'Too late', lineIds: [lineId] } };
  },
  takeLaterKit: async (at) => {
    const item = await at.item({ source: 'made' });
    const id = await at.define(item, [partLine(at.pin, '1')]);
    await at.shop.behave(item, { made: 'packed-per-order' });
    const order = await at.order(item);
    const { id: draftId, version } = await at.server.call(api.startRevision, { params: { id }, body: {} });
    const params = { id: draftId };
    const body = { version, outputQuantity: '1', lines: [partLine(at.pin, '2')] };
    const saved = await at.server.call(api.saveRevision, { params, body });
    await at.server.call(api.putInUse, { params, body: { version: saved.version } });
    return { params: { id: order.lines[0]?.id ?? 0 }, body: { version: order.version, revision: 2 } };
  },
  buildForOrders: async (at) => {
    const { lines } = await at.order(at.box);
    return { body: { chosen: [{ partId: lines[0]?.parts[0]?.id ?? 0, quantity: '2' }] } };
  },
  setBuildFor: async (at) => {
    const { lines } = await at.order(at.box);
    const { id, version } = await at.plan();
    return { params: { id }, body: { version, orders: [{ partId: lines[0]?.parts[0]?.id ?? 0, quantity: '1' }] } };
  },
  packOrder: async (at) => {
    const { id, lines } = await at.order();
    const line = { partId: lines[0]?.parts[0]?.id ?? 0, binId: at.bin(), quantity: '1' };
    return { params: { id }, body: { lines: [line] } };
  },
  unpackOrder: async (at) => {
    const { id, partId } = await at.packed();
    return { params: { id }, body: { lines: [{ partId, quantity: '1' }] } };
  },
  shipOrder: async (at) => {
    const { id, version, lines } = await at.order();
    return { params: { id }, body: { version, lines: [{ lineId: lines[0]?.id ?? 0, quantity: '2' }] } };
  },
  takeOrderMessage: async (at) => ({ body: { content: at.message(at.code()) } }),
  shopSends: async (at) => ({
    body: { does: 'order', buyer: 'Anna', lines: [{ itemId: at.pin.id, quantity: '1' }] },
  }),
  moveOnBoard: async (at) => {
    const { id, version, tasks } = await at.onBench();
    const [task] = tasks;
    const moved = { id: task?.id ?? 0, version: task?.version ?? 0 };
    return { body: { build: { id, version }, tasks: [moved], personId: 2, day: '2026-11-24' } };
  },
  planBuilds: async (at) => ({ body: { builds: [{ itemId: at.box.id, quantity: '1', due: null }] } }),
  updateBuild: async (at) => {
    const { id, version, outputBinId } = await at.plan();
    return { params: { id }, body: { quantity: '3', due: '2026-12-24', outputBinId, remark: '', version } };
  },
  allowSpare: async (at) => {
    const { id, version } = await at.onBench();
    await at.server.call(api.makeRun, { body: { goals: [{ kind: 'build', id }] } });
    return { params: { id }, body: { version, spare: true } };
  },
  startBuild: async (at) => {
    const { id, version } = await at.plan();
    return { params: { id }, body: { version } };
  },
  cancelBuild: async (at) => {
    const { id, version } = await at.picked();
    return { params: { id }, body: { version } };
  },
  finish: async (at) => {
    const { id, version, outputBinId } = await at.picked();
    return { params: { id }, body: { version, good: '1', outputBinId, lines: [] } };
  },
  correctDefinition: async (at) => {
    const item = await at.item({ source: 'made' });
    await at.define(item, [partLine(at.pin, '10', { taken: 'when-finished' })]);
    const { id, lines } = await at.shop.start(item, '3');
    for (const actual of ['11', '11', '11']) {
      const { version, outputBinId } = await at.read('build', id);
      const body = { version, good: '1', outputBinId, lines: [{ lineId: lines[0]?.id ?? 0, actual, because: 'Bent' }] };
      await at.server.call(api.finish, { params: { id }, body });
    }
    return { params: { id }, body: {} };
  },
  moveBuilds: async (at) => {
    const { item, definitionId: id } = await at.product();
    const build = await at.shop.plan(item, '1');
    const { id: draftId, version } = await at.server.call(api.startRevision, { params: { id }, body: {} });
    await at.server.call(api.putInUse, { params: { id: draftId }, body: { version } });
    return { params: { id }, body: { buildIds: [build.id] } };
  },
  addPart: async (at) => ({
    params: { id: (await at.onBench()).id },
    body: { itemId: at.pin.id, quantity: '1', because: 'One fell', binId: at.bin() },
  }),
  standIn: async (at) => {
    const item = await at.item({ source: 'made' });
    await at.define(item, [partLine(at.pin, '1', { alternates: [{ itemId: at.knob.id, ratio: '1' }] })]);
    const { id, lines } = await at.shop.start(item, '1');
    return { params: { id }, body: { lineId: lines[0]?.id ?? 0, itemId: at.knob.id, quantity: '1' } };
  },
  swapPart: async (at) => {
    const { id, lines } = await at.order(at.kit, '1');
    await at.server.call(api.makeRun, { body: { goals: [{ kind: 'order', id }] } });
    return { params: { id }, body: { partId: lines[0]?.parts[0]?.id ?? 0, itemId: at.knob.id } };
  },
  takeBack: async (at) => {
    const { id, lines } = await at.picked();
    const line = lines.find(({ item }) => item?.id === at.pin.id);
    return { params: { id }, body: { lineId: line?.id ?? 0, quantity: '1' } };
  },
  pick: async (at) => {
    const { id, lines } = await at.onBench();
    const line = lines.find(({ item }) => item?.id === at.pin.id);
    return { params: { id }, body: { lines: [{ lineId: line?.id ?? 0, binId: at.bin(), quantity: '1' }] } };
  },
  makeRun: async (at) => ({ body: { goals: [{ kind: 'order', id: (await at.order()).id }] } }),
  changeRun: async (at) => {
    const { params, version, goals } = await at.run();
    const more = { kind: 'build' as const, id: (await at.onBench()).id };
    return { params, body: { version, goals: [...goals, more], confirms: false } };
  },
  endRun: async (at) => {
    const { params, version } = await at.run();
    return { params, body: { version } };
  },
  claimStop: async (at) => {
    const { params, stop } = await at.run();
    return { params, body: { stop: stop?.key ?? '' } };
  },
  pickOnRun: async (at) => {
    const { params, stop } = await at.run();
    const [line] = stop?.lines ?? [];
    const picked = { kind: line?.kind ?? 'order', id: line?.id ?? 0, lineId: line?.lineId ?? 0 };
    return { params, body: { lines: [{ ...picked, binId: stop?.binId ?? 0, quantity: '1' }] } };
  },
  notThere: async (at) => {
    const { params, stop } = await at.run();
    return { params, body: { binId: stop?.binId ?? 0, itemId: stop?.item.id ?? 0 } };
  },
  changeTasks: async (at) => ({ body: { tasks: [await at.task()], change: { personId: 2 } } }),
  addTask: async (at) => ({
    params: { id: (await at.onBench()).id },
    body: { kind: 'labour', text: 'Sand', amount: '10', rateId: 1, because: 'Rough', personId: 2 },
  }),
  addTime: async (at) => ({
    params: { id: (await at.task()).id },
    body: { minutes: '3', day: '2026-11-23', personId: 2 },
  }),
  removeTime: async (at) => {
    const { id, version, tasks } = await at.onBench();
    const task = tasks.find(({ kind }) => kind === 'labour');
    const body = { minutes: '3', day: '2026-11-23' };
    await at.server.call(api.addTime, { params: { id: task?.id ?? version }, body });
    const times = await at.server.call(api.taskTimes, { params: { id } });
    return { params: { id: times[0]?.id ?? 0 } };
  },
  startClock: async (at) => ({ params: { id: (await at.task()).id }, body: {} }),
  stopClock: async (at) => {
    await at.server.call(api.startClock, { params: { id: (await at.task()).id }, body: {} });
    return { body: { minutes: '2' } };
  },
  takeIn: async (at) => ({ body: { customerId: at.customerId, itemId: at.knob.id, fault: 'Loose' } }),
  changeRepair: async (at) => {
    const { params, version } = await at.repair();
    return { params, body: { version, fault: 'Very loose' } };
  },
  estimateRepair: async (at) => {
    const { params, version } = await at.repair();
    return { params, body: { version, estimate: '9' } };
  },
  agreeRepair: async (at) => {
    const { params, version } = await at.repair('asked');
    return { params, body: { version, price: '9' } };
  },
  declineRepair: async (at) => {
    const { params, version } = await at.repair('asked');
    return { params, body: { version, because: 'Too dear' } };
  },
  giveBack: async (at) => {
    const { params, version } = await at.repair('ready');
    return { params, body: { version, charged: '0' } };
  },
  takeRepairBack: async (at) => {
    const { params, version } = await at.repair('given-back');
    return { params, body: { version } };
  },
  setJobTag: async (at) => ({ body: { kind: 'build', id: (await at.plan()).id, jobTag: at.code() } }),
  createPurchases: async (at) => {
    const lines = [{ itemId: at.pin.id, quantity: '5', price: '1' }];
    return { body: { orders: [{ supplierId: at.supplierId, lines }], send: null } };
  },
  savePurchase: async (at) => {
    const { id, version } = await at.purchase(null);
    const lines = [{ itemId: at.pin.id, quantity: '6', price: '1' }];
    return { params: { id }, body: { supplierId: at.supplierId, lines, version, send: null } };
  },
  sendPurchase: async (at) => {
    const { id, version } = await at.purchase(null);
    return { params: { id }, body: { version, how: 'print' } };
  },
  confirmPurchase: async (at) => {
    const { id, version, lineId } = await at.purchase('print');
    return { params: { id }, body: { version, lines: [{ lineId, quantity: '5', on: '2026-12-03' }] } };
  },
  expectOn: async (at) => ({ body: { lines: [{ lineId: (await at.purchase('print')).lineId, on: '2026-12-04' }] } }),
  closePurchase: async (at) => {
    const { id, version, lineId } = await at.purchase('print');
    return { params: { id }, body: { version, lineIds: [lineId] } };
  },
  cancelPurchase: async (at) => {
    const { id, version } = await at.purchase('print');
    return { params: { id }, body: { version } };
  },
  receivePurchase: async (at) => {
    const { id, lineId } = await at.purchase('print');
    return { params: { id }, body: { lines: [{ lineId, binId: at.bin(), quantity: '2', unitCost: '1' }] } };
  },
  createSupplier: async (at) => ({ body: { code: at.code(), name: 'Another' } }),
  updateSupplier: async (at) => {
    const code = at.code();
    const { id } = await at.server.call(api.createSupplier, { body: { code, name: 'Another' } });
    const { version } = await at.server.call(api.supplier, { params: { id } });
    return { params: { id }, body: { code, name: 'Renamed', version } };
  },
  takeMail: async (at) => {
    const { id } = await at.purchase('mailbox');
    const { number } = await at.read('purchase', id);
    const lines = [
      { id: '1', quantity: parseDecimal('5') as Quantity, unit: 'each', name: 'Pin', promisedOn: '2026-12-09' },
    ];
    const promise = { number: at.code(), order: number, issuedOn: '2026-11-23', note: '', lines };
    const party = { name: 'North', address: [], email: null };
    return { body: { content: writeOrderResponse(promise, party, party) } };
  },
  answerAsSupplier: async (at) => ({ params: { id: (await at.purchase('mailbox')).id }, body: { answer: 'confirm' } }),
  createLabelJob: async (at) => ({ body: { of: { itemId: at.pin.id, copies: 1 } } }),
  endLabelJob: async (at) => {
    const { id } = await at.server.call(api.createLabelJob, { body: { of: { itemId: at.pin.id, copies: 1 } } });
    return { params: { id }, body: { as: 'printed' } };
  },
  createReason: async (at) => ({ body: { name: at.code(), usedFor: 'adjustment' } }),
  transfer: async (at) => {
    const { id } = await at.stocked();
    return { body: { lines: [{ itemId: id, fromBinId: at.bin(), toBinId: at.bin(1), quantity: '2' }] } };
  },
  adjust: async (at) => {
    const { id } = await at.stocked();
    return { body: { reasonId: 1, lines: [{ itemId: id, binId: at.bin(), change: '-1' }] } };
  },
  revalue: async (at) => ({ body: { asStandard: false, lines: [{ itemId: (await at.stocked()).id, unitCost: '4' }] } }),
  settle: async (at) => {
    const { id } = await at.stocked('1');
    const lines = [{ itemId: id, binId: at.bin(), change: '-2' }];
    await at.server.call(api.adjust, { body: { reasonId: 1, lines, override: { reason: 'In the van' } } });
    const open = await at.server.call(api.putRight, {});
    return { params: { id: open[0]?.id ?? 0 }, body: { by: 'adjustment', reasonId: 1 } };
  },
  undoDocument: async (at) => ({
    params: { id: (await at.shop.receive(await at.item(), '2', '1')).id },
    body: {},
  }),
  receive: async (at) => {
    const line = { itemId: (await at.item()).id, binId: at.bin(), quantity: '2', unitCost: '1' };
    return { body: { kind: 'receipt', lines: [line] } };
  },
  postPrices: async (at) => {
    const { id } = await at.shop.receive(await at.item(), '2', '1');
    const { lines } = await at.server.call(api.receiptPrices, { params: { id } });
    return { params: { id }, body: { lines: [{ lineId: lines[0]?.lineId ?? 0, unitCost: '1.5' }] } };
  },
  setReorderPoints: async (at) => {
    const { id, version } = await at.item();
    return { body: { points: [{ itemId: id, point: '5', version }] } };
  },
  takeApart: async (at) => {
    const { item } = await at.product();
    await at.shop.receive(item, '2', '5');
    const plan = await at.server.call(api.apartPlan, { params: { id: item.id } });
    const lines = plan.lines.map(({ lineId }) => ({ lineId, good: '1', damaged: '0', binId: at.bin() }));
    const { revisionId } = plan;
    return {
      body: { itemId: item.id, revisionId, binId: at.bin(), quantity: '1', leftover: 'spread', lines },
    };
  },
  announceReturn: async (at) => ({ body: { lines: [await at.cameBack()] } }),
  arriveReturn: async (at) => {
    const { id, version, came } = await at.returned(false);
    return { params: { id }, body: { version, lines: [came] } };
  },
  callOffReturn: async (at) => {
    const { id, version } = await at.returned(false);
    return { params: { id }, body: { version, because: 'They keep it' } };
  },
  creditReturn: async (at) => {
    const { version, lineId } = await at.returned(true);
    return { params: { id: lineId }, body: { version, credit: '30' } };
  },
  settleReturns: async (at) => {
    const { pieceId } = await at.returned(true);
    return { body: { deeds: [{ pieceId, quantity: '1', outcome: 'scrap' }] } };
  },
  reworkReturn: async (at) => {
    const { item } = await at.product();
    const body = { itemId: item.id, purpose: 'rework' as const };
    const { id, version } = await at.server.call(api.createDefinition, { body });
    const params = { id };
    const lines = [partLine(item, '1'), partLine(at.knob, '1')];
    const sent = { version, outputQuantity: '1', lines };
    const saved = await at.server.call(api.saveRevision, { params, body: sent });
    await at.server.call(api.putInUse, { params, body: { version: saved.version } });
    await at.shop.receive(item, '3', '5');
    return { params: { id: (await at.returned(true, item)).pieceId }, body: { quantity: '1' } };
  },
  describeLot: async (at) => {
    const { id, item } = await at.lot();
    const order = await at.order(item);
    await at.server.call(api.makeRun, { body: { goals: [{ kind: 'order', id: order.id }] } });
    return { params: { id }, body: { attributes: { Colour: 'red' } } };
  },
  hold: async (at) => ({ body: { reasonId: await at.reason('hold'), lotIds: [(await at.lot()).id] } }),
  release: async (at) => {
    const lotIds = [(await at.lot()).id];
    await at.server.call(api.hold, { body: { reasonId: await at.reason('hold'), lotIds } });
    return { body: { lotIds } };
  },
};

const itemBody = (code: string) => ({
  code,
  name: `The ${code}`,
  unitId: 1,
  source: 'bought' as const,
  homeBinId: null,
  sellPrice: null,
  reorderPoint: null,
  standardCost: null,
  note: '',
});

/** A draft that can be put in use. */
async function ready(at: Ground) {
  const { id, version } = await at.draft();
  const body = { version, outputQuantity: '1', lines: [partLine(at.pin, '1')] };
  const saved = await at.server.call(api.saveRevision, { params: { id }, body });
  return { params: { id }, body: { version: saved.version } };
}
