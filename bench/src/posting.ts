import { api, type BuildDetail } from '@yosegi/contract';
import { type Fetch, send } from '@yosegi/contract/client';
import { replayed } from './replay.ts';

const LINES = 12;

/** A build finish of 12 part lines, with a task of labour and one of a service. */
export const postingBench = () =>
  replayed({
    name: `finish of ${LINES} lines with tasks over HTTP`,
    rounds: 60,
    most: 2.5,
    prepare,
    post: (call, build) => {
      const body = { version: build.version, good: '1', outputBinId: build.outputBinId, lines: [] };
      return send(call, api.finish, { params: { id: build.id }, body });
    },
    next: (call, build) => send(call, api.build, { params: { id: build.id } }),
  });

/** A product of twelve parts, in stock, with one large build of it on the bench and a few others open beside it. */
async function prepare(call: Fetch): Promise<BuildDetail> {
  const store = await send(call, api.createStore, { body: { code: 'S', name: 'Store' } });
  const bin = await send(call, api.createBin, { params: { id: store.id }, body: { code: 'A', pickingOrder: 1 } });
  const item = (code: string) => {
    const nothing = { sellPrice: null, reorderPoint: null, standardCost: null, note: '' };
    return send(call, api.createItem, {
      body: { code, name: code, unitId: 1, source: 'both', homeBinId: bin.id, ...nothing },
    });
  };
  const parts = [];
  for (let n = 0; n < LINES; n += 1) parts.push(await item(`PART-${n}`));
  const product = await item('PRODUCT');
  const lines = parts.map((part) => ({ itemId: part.id, binId: bin.id, quantity: '100000', unitCost: '1.37' }));
  await send(call, api.receive, { body: { kind: 'receipt', lines } });
  const { id } = await send(call, api.createDefinition, { body: { itemId: product.id } });
  const part = {
    kind: 'part',
    basis: 'per-output',
    quantity: '2',
    waste: '0',
    taken: 'when-finished',
    share: null,
    comesBack: true,
  } as const;
  const { id: rateId } = await send(call, api.createRate, { body: { name: 'Hour', perHour: '24' } });
  const work = [
    { kind: 'labour', text: 'Assemble', basis: 'per-output', minutes: '7', rateId } as const,
    { kind: 'charge', text: 'Varnish', basis: 'per-output', amount: '0.4' } as const,
  ];
  const own = [...parts.map((one) => ({ ...part, itemId: one.id })), ...work];
  const body = { version: 0, outputQuantity: '1', lines: own };
  const saved = await send(call, api.saveRevision, { params: { id }, body });
  await send(call, api.putInUse, { params: { id }, body: { version: saved.version } });
  const plan = (quantity: string) => ({ itemId: product.id, quantity, due: null });
  const { builds } = await send(call, api.planBuilds, {
    body: { builds: [plan('1000'), plan('5'), plan('8'), plan('3')] },
  });
  const [first] = builds;
  if (!first) throw new Error('nothing was planned');
  await send(call, api.startBuild, { params: { id: first.id }, body: { version: first.version } });
  return send(call, api.build, { params: { id: first.id } });
}
