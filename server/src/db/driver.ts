import type sqlite3 from 'sqlite3';
import type { SqlRow, SqlValue } from './database.ts';

const STATEMENTS_KEPT = 300;

/**
 * SQLite as its driver has it, with statements prepared once. Only the posting path (`ledger/`, `command/`) speaks to it,
 * on the connection that Sequelize opened: it was measured, and costs a third (docs/decisions/sequelize.md).
 */
export class Driver {
  /** Statements that were prepared, the longest unused first: SQLite would read the same text anew each time. */
  private readonly prepared = new Map<string, Promise<sqlite3.Statement>>();

  constructor(private readonly handle: sqlite3.Database) {}

  async all<T extends object>(sql: string, bind: readonly SqlValue[] = []): Promise<T[]> {
    const statement = await this.statement(sql);
    return new Promise((resolve, reject) => {
      statement.all<T>(named(bind), (error, rows) => (error ? reject(error) : resolve(rows)));
    });
  }

  async one<T extends object>(sql: string, bind: readonly SqlValue[] = []): Promise<T | undefined> {
    return (await this.all<T>(sql, bind))[0];
  }

  async run(sql: string, bind: readonly SqlValue[] = []): Promise<void> {
    await this.all(sql, bind);
  }

  /** Inserts a row and returns its id. */
  async insert(table: string, row: SqlRow): Promise<number> {
    const columns = Object.keys(row);
    const values = columns.map((_, index) => `$${index + 1}`);
    const sql = `INSERT INTO ${table} (${columns.join(', ')}) VALUES (${values.join(', ')}) RETURNING rowid AS id`;
    const inserted = await this.one<{ id: number }>(sql, Object.values(row));
    if (!inserted) throw new Error(`no row inserted into ${table}`);
    return inserted.id;
  }

  /** Inserts rows of the same columns, all with one statement. */
  async insertMany(table: string, rows: readonly SqlRow[]): Promise<void> {
    const [first] = rows;
    if (!first) return;
    const columns = Object.keys(first);
    const values = columns.map((_, index) => `value ->> ${index}`);
    const sql = `INSERT INTO ${table} (${columns.join(', ')}) SELECT ${values.join(', ')} FROM json_each($1)`;
    await this.run(sql, [JSON.stringify(rows.map((row) => columns.map((column) => row[column])))]);
  }

  async close(): Promise<void> {
    const statements = [...this.prepared.values()];
    this.prepared.clear();
    for (const statement of await Promise.allSettled(statements))
      if (statement.status === 'fulfilled') statement.value.finalize();
  }

  private statement(sql: string): Promise<sqlite3.Statement> {
    const statement = this.prepared.get(sql) ?? this.prepare(sql);
    // The one used last goes to the end, the longest unused is given up.
    this.prepared.delete(sql);
    this.prepared.set(sql, statement);
    if (this.prepared.size > STATEMENTS_KEPT) {
      const [[oldest, unused]] = this.prepared as unknown as [[string, Promise<sqlite3.Statement>]];
      this.prepared.delete(oldest);
      void unused.then(
        (known) => known.finalize(),
        () => undefined,
      );
    }
    return statement;
  }

  private prepare(sql: string): Promise<sqlite3.Statement> {
    return new Promise((resolve, reject) => {
      const statement = this.handle.prepare(sql, (error: Error | null) => {
        if (!error) return resolve(statement);
        this.prepared.delete(sql);
        reject(error);
      });
    });
  }
}

/** `$1`, `$2` … by name, so that a statement may use them in any order. */
const named = (bind: readonly SqlValue[]) => Object.fromEntries(bind.map((value, index) => [`$${index + 1}`, value]));
