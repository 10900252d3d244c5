import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DataTypes, type Model, type ModelStatic } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Database } from '../src/db/database.ts';
import { migrate } from '../src/db/migrate.ts';
import type { TableName } from '../src/db/models/index.ts';

const folder = mkdtempSync(join(tmpdir(), 'yosegi-'));
let database: Database;
beforeAll(async () => {
  database = await Database.open(join(folder, 'models.sqlite'), { durable: false });
  await migrate(database);
});
afterAll(async () => {
  await database.close();
  rmSync(folder, { recursive: true });
});

interface ColumnInfo {
  name: string;
  type: string;
  notnull: number;
  dflt_value: string | null;
  pk: number;
}
interface Reference {
  id: number;
  from: string;
  table: string;
  on_delete: string;
}
const tables = async () =>
  (
    await database.reader.all<{ name: string }>(
      "SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT IN ('migrations', 'sqlite_sequence') ORDER BY name",
    )
  ).map(({ name }) => name);

describe('models', () => {
  it('stand for every table of the schema, and for no other', async () => {
    expect(Object.keys(database.reader.models).sort()).toEqual(await tables());
  });

  it('have the very columns of the migrated schema: type, need, default, key and reference', async () => {
    for (const table of await tables()) {
      const columns = await database.reader.all<ColumnInfo>(`SELECT * FROM pragma_table_info('${table}')`);
      const references = await database.reader.all<Reference>(`SELECT * FROM pragma_foreign_key_list('${table}')`);
      // References of two columns at once have no form in a model.
      const alone = references.filter(({ id }) => references.filter((one) => one.id === id).length === 1);
      const schema = columns.map(({ name, type, notnull, dflt_value, pk }) => {
        const to = alone.find(({ from }) => from === name);
        return {
          name,
          type,
          needed: notnull === 1 || (pk > 0 && name !== 'id'),
          fallback: dflt_value === null ? undefined : dflt_value.replace(/^'(.*)'$/, '$1'),
          key: pk > 0,
          refers: to ? `${to.table} ${to.on_delete}` : undefined,
        };
      });
      const { models } = database.reader;
      const attributes = (models[table as TableName] as ModelStatic<Model>).getAttributes();
      const model = Object.entries(attributes).map(([name, attribute]) => {
        const { type, allowNull, defaultValue, primaryKey, references: to, onDelete } = attribute;
        return {
          name,
          type: type instanceof DataTypes.INTEGER ? 'INTEGER' : type instanceof DataTypes.BLOB ? 'BLOB' : 'TEXT',
          needed: allowNull === false,
          fallback: defaultValue === undefined ? undefined : String(defaultValue),
          key: primaryKey === true,
          refers: to ? `${(to as { model: string }).model} ${onDelete}` : undefined,
        };
      });
      expect(model, table).toEqual(schema);
    }
  });

  it('save a record that people edit only over the version they saw', async () => {
    await database.write(async (tx) => {
      const { id } = await tx.models.store.create({ code: 'N', name: 'North' });
      const first = await tx.models.store.findByPk(id);
      const second = await tx.models.store.findByPk(id);
      await first?.update({ name: 'Northern' });
      expect(first?.version).toBe(1);
      await expect(second?.update({ name: 'South' })).rejects.toThrow(/stale/);
    });
  });

  it('ask for what belongs to a record along with it', async () => {
    await database.write(async (tx) => {
      const store = await tx.models.store.create({ code: 'W', name: 'West' });
      await tx.models.bin.create({ store_id: store.id, code: 'A1' });
      const found = await tx.models.store.findByPk(store.id, { include: ['bins'] });
      expect(found?.toJSON()).toMatchObject({ code: 'W', bins: [{ code: 'A1', kind: 'shelf' }] });
      const bin = await tx.models.bin.findOne({ where: { code: 'A1' }, include: ['store'] });
      expect(bin?.toJSON()).toMatchObject({ store: { name: 'West' } });
    });
  });
});
