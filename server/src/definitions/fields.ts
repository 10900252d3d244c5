import type { Saved } from '@yosegi/contract';
import type { BodyOf, Doing } from '../command/doing.ts';
import { saved, updateVersioned } from '../db/versions.ts';
import { refuseTwice } from '../items/index.ts';
import { readDefinition } from './sql.ts';

/**
 * Sets whatever else the owner keeps beside a bill of materials.
 * @throws Refusal `twice` naming the second of two of the same name; `stale-save`
 */
export async function setDefinitionFields(
  doing: Doing,
  definition_id: number,
  { version, fields }: BodyOf<'setDefinitionFields'>,
): Promise<Saved> {
  const { tx } = doing;
  refuseTwice(
    fields.map(({ name }) => name),
    (index) => `fields.${index}.name`,
  );
  await updateVersioned(tx, 'definition', definition_id, version, {}, () => readDefinition(tx, definition_id));
  await tx.models.definition_field.destroy({ where: { definition_id } });
  await tx.insertMany(
    'definition_field',
    fields.map((field) => ({ definition_id, ...field })),
  );
  doing.changed('definitions');
  return saved(tx, 'definition', definition_id);
}
