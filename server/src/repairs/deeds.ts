import type { Numbered } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { Money } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { afterDeed, type RepairDeed } from '@yosegi/core/repairs';
import { cancelBuild, isOpen, noteRepair } from '../builds/index.ts';
import { type BodyOf, type Doing, found, required } from '../command/doing.ts';
import type { Row } from '../db/models/index.ts';
import { numbered, saveAnew, updateVersioned } from '../db/versions.ts';
import { readRepair } from './read.ts';
import { repairRecord } from './sql.ts';

interface Change {
  readonly deed: RepairDeed;
  readonly version: number;
  readonly values?: Partial<Row<'repair'>>;
  readonly says: string;
  /** The money that is spoken of. */
  readonly amount?: Money | null;
}

/** One step of a repair. @throws Refusal `wrong-state`, `stale-save` */
async function step(doing: Doing, id: number, { deed, version, values, says, amount }: Change): Promise<Numbered> {
  const { tx, now } = doing;
  const repair = found(await repairRecord(tx, id));
  const state = afterDeed(deed, repair);
  const current = () => readRepair(tx, id, dayOf(now));
  await updateVersioned(tx, 'repair', id, version, { ...values, state }, current);
  await noteRepair(doing, id, says, amount);
  return numbered(tx, 'repair', id);
}

/** Changes what is said of a repair that is here. @throws Refusal `wrong-state`, `stale-save` */
export async function changeRepair(doing: Doing, id: number, input: BodyOf<'changeRepair'>): Promise<Numbered> {
  const { tx, now } = doing;
  const repair = found(await repairRecord(tx, id));
  if (repair.state === 'given-back')
    throw new Refusal('wrong-state', { kind: 'repair', number: repair.number, state: repair.state });
  const values = {
    fault: input.fault,
    accessories: input.accessories,
    wanted_on: input.wantedOn,
    warranty: input.warranty ? 1 : 0,
    price: input.warranty ? null : input.price,
    job_tag: input.jobTag,
    report: input.report,
  };
  await updateVersioned(tx, 'repair', id, input.version, values, () => readRepair(tx, id, dayOf(now)));
  const build = required(await tx.models.build.findByPk(repair.build_id));
  await saveAnew<'build'>(build, { due: input.wantedOn, job_tag: input.jobTag });
  doing.changed('builds', 'orders');
  return numbered(tx, 'repair', id);
}

export const estimateRepair = (doing: Doing, id: number, { version, estimate }: BodyOf<'estimateRepair'>) =>
  step(doing, id, {
    deed: 'ask',
    version,
    values: { estimate },
    says: 'Told the customer what it would cost',
    amount: estimate,
  });

export async function agreeRepair(doing: Doing, id: number, { version, price }: BodyOf<'agreeRepair'>) {
  const repair = found(await repairRecord(doing.tx, id));
  const agreed = repair.warranty ? null : (price ?? repair.estimate);
  const says = 'The customer agreed';
  return step(doing, id, { deed: 'agree', version, values: { price: agreed }, says, amount: agreed });
}

/** Lets it go back as it came: what stands on its bench goes back to the bins. */
export async function declineRepair(doing: Doing, id: number, { version, because }: BodyOf<'declineRepair'>) {
  const repair = found(await repairRecord(doing.tx, id));
  const change = { version, values: { declined: because }, says: `Not repaired: ${because}` };
  const after = await step(doing, id, { deed: 'decline', ...change });
  const build = required(await doing.tx.models.build.findByPk(repair.build_id));
  if (isOpen(build.state)) await cancelBuild(doing, build.id, build.version);
  return after;
}

/** @throws Refusal `warranty-is-free` where something is charged for a repair under warranty */
export async function giveBack(doing: Doing, id: number, { version, charged }: BodyOf<'giveBack'>) {
  const repair = found(await repairRecord(doing.tx, id));
  if (repair.warranty && charged > 0) throw new Refusal('warranty-is-free', {}, 'charged');
  const gone = { charged, given_back_at: doing.now.toISOString(), given_back_by: doing.person.id };
  const says = `Given back to ${repair.customer}${charged > 0 ? '' : ', nothing charged'}`;
  const amount = charged > 0 ? charged : null;
  return step(doing, id, { deed: 'give-back', version, values: gone, says, amount });
}

export async function takeRepairBack(doing: Doing, id: number, { version }: BodyOf<'takeRepairBack'>) {
  const repair = found(await repairRecord(doing.tx, id));
  await refuseElsewhere(doing, repair);
  const here = { charged: null, given_back_at: null, given_back_by: null };
  return step(doing, id, { deed: 'take-back', version, values: here, says: 'Not given back after all' });
}

/** A unit that is here for another repair by now was given back. @throws Refusal `unit-in-repair` */
async function refuseElsewhere({ tx }: Doing, { id, serial_id }: Pick<Row<'repair'>, 'id' | 'serial_id'>) {
  if (serial_id === null) return;
  const others = await tx.models.repair.findAll({ where: { serial_id } });
  const other = others.find((one) => one.id !== id && one.state !== 'given-back');
  if (!other) return;
  const unit = required(await tx.models.serial.findByPk(serial_id));
  throw new Refusal('unit-in-repair', { code: unit.code, says: `is here for ${other.number}` });
}
