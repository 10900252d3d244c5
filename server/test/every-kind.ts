import { api } from '@yosegi/contract';
import { type TestServer, Workshop } from './harness.ts';

/** A business that has posted a document of every kind there is, on stock of every tracking. */
export async function everyKind(server: TestServer): Promise<Workshop> {
  const shop = await Workshop.open(server);
  const wax = await shop.item('WAX', { tracking: 'lot' });
  const scale = await shop.item('SCALE', { tracking: 'serial' });
  const pin = await shop.item('PIN');
  const box = await shop.item('BOX', { source: 'made' });
  const opening = [{ itemId: pin.id, binId: shop.bin(0), quantity: '30', unitCost: '1' }];
  await server.call(api.receive, { body: { kind: 'opening', lines: opening } });
  await shop.receive(wax, '5', '2', 0, { lot: 'A' });
  await shop.receive(wax, '5', '2', 0, { lot: 'B' });
  await shop.receive(scale, '2', '30', 0, { serials: ['S1', 'S2'] });
  const wrong = await shop.receive(pin, '9', '1');
  await server.call(api.undoDocument, { params: { id: wrong.id }, body: {} });
  const { id: supplierId } = await server.call(api.createSupplier, { body: { code: 'N', name: 'North' } });
  const lines = [{ itemId: pin.id, quantity: '20', price: '1' }];
  const order = await shop.order({ supplierId, lines }, 'print');
  const come = { lineId: order.lines[0]?.id ?? 0, binId: shop.bin(0), quantity: '12', unitCost: '1' };
  const { document } = await server.withOrder(api.receivePurchase, {
    params: { id: order.id },
    body: { lines: [come] },
  });
  const { lines: prices } = await server.call(api.receiptPrices, { params: { id: document.id } });
  const dearer = { lines: [{ lineId: prices[0]?.lineId ?? 0, unitCost: '1.5' }] };
  await server.call(api.postPrices, { params: { id: document.id }, body: dearer });
  const moved = { itemId: wax.id, fromBinId: shop.bin(0), toBinId: shop.bin(1), quantity: '2' };
  await server.call(api.transfer, { body: { lines: [moved] } });
  const lost = { itemId: pin.id, binId: shop.bin(0), change: '-1' };
  await server.call(api.adjust, { body: { reasonId: 1, lines: [lost] } });
  await shop.define(box, [[pin, '2']], '6');
  const build = await shop.start(box, '3');
  await shop.pickAll(build.id);
  const { version } = await server.call(api.build, { params: { id: build.id } });
  const finish = { version, good: '2', outputBinId: shop.bin(2), lines: [] };
  await server.call(api.finish, { params: { id: build.id }, body: finish });
  const over = await shop.start(box, '1');
  await shop.pickAll(over.id);
  const picked = await server.call(api.build, { params: { id: over.id } });
  await server.call(api.cancelBuild, { params: { id: over.id }, body: { version: picked.version } });
  const plan = await server.call(api.apartPlan, { params: { id: box.id } });
  const apart = {
    itemId: box.id,
    revisionId: plan.revisionId,
    binId: shop.bin(2),
    quantity: '1',
    leftover: 'written-off' as const,
    lines: plan.lines.map(({ lineId }) => ({ lineId, good: '1', damaged: '1', binId: shop.bin(0) })),
  };
  await server.call(api.takeApart, { body: apart });
  await server.call(api.revalue, { body: { asStandard: true, lines: [{ itemId: scale.id, unitCost: '28' }] } });
  const count = await server.did('count', api.beginCount, { body: { binIds: [shop.bin(1)] } });
  const [sheet] = count.sheet;
  const counted = await server.did('count', api.countLine, {
    params: { id: sheet?.id ?? 0 },
    body: { counted: '1', serials: [] },
  });
  await server.call(api.approveCount, { params: { id: count.id }, body: { version: counted.version } });
  const sold = await shop.sell(await shop.customer('LARK'), [{ itemId: pin.id, quantity: '2', price: '3' }]);
  const ship = { version: sold.version, lines: [{ lineId: sold.lines[0]?.id ?? 0, quantity: '1' }] };
  await server.call(api.shipOrder, { params: { id: sold.id }, body: ship });
  const soldAgain = await shop.sell(sold.customerId, [{ itemId: pin.id, quantity: '4', price: '3' }]);
  const whole = { version: soldAgain.version, lines: [{ lineId: soldAgain.lines[0]?.id ?? 0, quantity: '4' }] };
  const { id: shipmentId } = await server.call(api.shipOrder, { params: { id: soldAgain.id }, body: whole });
  const reasonId = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'return')?.id ?? 0;
  const cameBack = {
    shipmentId,
    lineId: soldAgain.lines[0]?.id ?? 0,
    quantity: '3',
    reasonId,
    condition: 'used' as const,
  };
  const { id: returnId } = await server.call(api.announceReturn, { body: { arrived: true, lines: [cameBack] } });
  const { lines: returned } = await server.call(api.return, { params: { id: returnId } });
  const scrapped = { pieceId: returned[0]?.pieces[0]?.id ?? 0, quantity: '1', outcome: 'scrap' as const };
  await server.call(api.settleReturns, { body: { deeds: [scrapped] } });
  const wanted = [
    { itemId: pin.id, quantity: '2', price: '3' },
    { itemId: box.id, quantity: '4', price: '9' },
  ];
  const later = await shop.sell(sold.customerId, wanted);
  const [pins, boxes] = later.lines.map((line) => line.parts[0]?.id ?? 0);
  const pack = { lines: [{ partId: pins ?? 0, binId: shop.bin(0), quantity: '1' }] };
  await server.call(api.packOrder, { params: { id: later.id }, body: pack });
  await server.call(api.buildForOrders, { body: { chosen: [{ partId: boxes ?? 0, quantity: '2' }] } });
  return shop;
}
