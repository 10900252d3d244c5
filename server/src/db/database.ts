import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { QueryTypes, Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';

export type SqlValue = string | number | null;
export type SqlRow = Record<string, SqlValue>;

/** Reading access to the database. `$1`, `$2` … in the SQL stand for the values of `bind`. */
export interface Reader {
  all<T extends object>(sql: string, bind?: readonly SqlValue[]): Promise<T[]>;
  one<T extends object>(sql: string, bind?: readonly SqlValue[]): Promise<T | undefined>;
}

/** Writing access, inside one transaction. */
export interface Writer extends Reader {
  run(sql: string, bind?: readonly SqlValue[]): Promise<void>;
  /** Inserts a row and returns its id. */
  insert(table: string, row: SqlRow): Promise<number>;
  /** Inserts rows of the same columns with one statement. */
  insertMany(table: string, rows: readonly SqlRow[]): Promise<void>;
}

class Connection implements Writer {
  constructor(readonly sequelize: Sequelize) {}

  all<T extends object>(sql: string, bind: readonly SqlValue[] = []): Promise<T[]> {
    // Sequelize takes anything that starts with INSERT for a statement without rows; RETURNING gives some.
    return this.sequelize.query<T>(`/* rows */ ${sql}`, { type: QueryTypes.SELECT, bind: [...bind], raw: true });
  }

  async one<T extends object>(sql: string, bind: readonly SqlValue[] = []): Promise<T | undefined> {
    return (await this.all<T>(sql, bind))[0];
  }

  async run(sql: string, bind: readonly SqlValue[] = []): Promise<void> {
    await this.sequelize.query(sql, { type: QueryTypes.RAW, bind: [...bind] });
  }

  async insert(table: string, row: SqlRow): Promise<number> {
    const columns = Object.keys(row);
    const values = columns.map((_, index) => `$${index + 1}`);
    const sql = `INSERT INTO ${table} (${columns.join(', ')}) VALUES (${values.join(', ')})`;
    const [id] = await this.sequelize.query(sql, { type: QueryTypes.INSERT, bind: Object.values(row) });
    return id;
  }

  async insertMany(table: string, rows: readonly SqlRow[]): Promise<void> {
    if (rows.length > 0) await this.sequelize.getQueryInterface().bulkInsert(table, [...rows]);
  }
}

/**
 * One SQLite file with a single writing connection and a second one for reading.
 *
 * Sequelize would open a connection for every transaction of its own, which costs more than the posting itself, so
 * transactions are begun and ended by hand on the one writer and queue up behind each other.
 */
export class Database {
  private readonly writer: Connection;
  readonly reader: Reader;
  private readonly connections: readonly Sequelize[];
  private queue: Promise<unknown> = Promise.resolve();

  constructor(readonly file: string) {
    mkdirSync(dirname(file), { recursive: true });
    const writer = connect(file, ['PRAGMA journal_mode = WAL', 'PRAGMA synchronous = FULL']);
    const reader = connect(file, ['PRAGMA query_only = ON']);
    this.writer = new Connection(writer);
    this.reader = new Connection(reader);
    this.connections = [writer, reader];
  }

  /** Runs `work` in one transaction: all of it takes effect, or none when it throws. */
  write<T>(work: (tx: Writer) => Promise<T>): Promise<T> {
    return this.alone(async () => {
      await this.writer.run('BEGIN IMMEDIATE');
      try {
        const result = await work(this.writer);
        await this.writer.run('COMMIT');
        return result;
      } catch (error) {
        await this.writer.run('ROLLBACK');
        throw error;
      }
    });
  }

  /** The writing connection outside a transaction, for migrations and maintenance. */
  maintain<T>(work: (sequelize: Sequelize) => Promise<T>): Promise<T> {
    return this.alone(() => work(this.writer.sequelize));
  }

  async close(): Promise<void> {
    await this.queue.catch(() => undefined);
    for (const connection of this.connections) await connection.close();
  }

  private alone<T>(work: () => Promise<T>): Promise<T> {
    const turn = this.queue.then(work, work);
    this.queue = turn.catch(() => undefined);
    return turn;
  }
}

function connect(file: string, pragmas: readonly string[]): Sequelize {
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    dialectModule: sqlite3,
    storage: file,
    logging: false,
    // A failed query is the caller's to handle; trying again behind its back could post twice.
    retry: { max: 1 },
  });
  sequelize.addHook('afterConnect', async (connection) => {
    for (const pragma of ['PRAGMA busy_timeout = 5000', 'PRAGMA foreign_keys = ON', ...pragmas]) {
      await exec(connection as sqlite3.Database, pragma);
    }
  });
  return sequelize;
}

const exec = (connection: sqlite3.Database, sql: string) =>
  new Promise<void>((resolve, reject) => {
    connection.exec(sql, (error) => (error ? reject(error) : resolve()));
  });
