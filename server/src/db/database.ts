import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { type Model, type ModelStatic, QueryTypes, type Sequelize } from 'sequelize';
import type sqlite3 from 'sqlite3';
import { Driver } from './driver.ts';
import { defineModels, type Models, type Row, type TableName } from './models/index.ts';
import { openSequelize } from './sequelize.ts';

export type SqlValue = string | number | null | Buffer;
export type SqlRow = Record<string, SqlValue>;

const READING = ['query_only = ON'];

/** SQLite takes statements of up to a million characters; this many rows stay far below. */
const ROWS_A_STATEMENT = 500;

/** Reading access to the database. `$1`, `$2` … in the SQL stand for the values of `bind`. */
export interface Reader {
  all<T extends object>(sql: string, bind?: readonly SqlValue[]): Promise<T[]>;
  one<T extends object>(sql: string, bind?: readonly SqlValue[]): Promise<T | undefined>;
  /** A model for every table, on this connection. */
  readonly models: Models;
  /** The same connection without Sequelize, for the posting path. */
  readonly driver: Driver;
}

/** Writing access, inside one transaction. */
export interface Writer extends Reader {
  run(sql: string, bind?: readonly SqlValue[]): Promise<void>;
  /** Makes a record and returns its id. */
  insert<T extends TableName>(table: T, row: Partial<Row<T>>): Promise<number>;
  /** Makes records of the same columns, many with one statement. */
  insertMany<T extends TableName>(table: T, rows: readonly Partial<Row<T>>[]): Promise<void>;
}

/** The writing connection outside of a transaction. */
export interface Maintenance {
  readonly sequelize: Sequelize;
  script(sql: string): Promise<void>;
  all(sql: string): Promise<object[]>;
}

/** A file as Sequelize has it open. Statements are SQL of ours, run through it on its one connection. */
class Connection implements Writer {
  readonly driver: Driver;
  readonly models: Models;

  private constructor(
    readonly sequelize: Sequelize,
    private readonly handle: sqlite3.Database,
  ) {
    this.driver = new Driver(handle);
    this.models = defineModels(sequelize);
  }

  /** Sequelize keeps one connection for everything outside its own transactions; it is opened here, with its pragmas. */
  static async open(file: string, pragmas: readonly string[]): Promise<Connection> {
    const sequelize = openSequelize(file);
    const handle = (await sequelize.connectionManager.getConnection({ type: 'write' })) as sqlite3.Database;
    const connection = new Connection(sequelize, handle);
    for (const pragma of ['busy_timeout = 5000', 'foreign_keys = ON', ...pragmas])
      await connection.script(`PRAGMA ${pragma}`);
    return connection;
  }

  /** Runs several statements as they are; the handle stays out of Sequelize's way of splitting and guessing. */
  script(sql: string): Promise<void> {
    return new Promise((resolve, reject) => {
      this.handle.exec(sql, (error) => (error ? reject(error) : resolve()));
    });
  }

  trace(listen: (sql: string) => void): () => void {
    this.handle.on('trace', listen);
    return () => void this.handle.removeListener('trace', listen);
  }

  async close(): Promise<void> {
    await this.driver.close();
    return new Promise((resolve, reject) => {
      this.handle.close((error) => (error ? reject(error) : resolve()));
    });
  }

  all<T extends object>(sql: string, bind: readonly SqlValue[] = []): Promise<T[]> {
    return this.sequelize.query<T>(sql, { bind: [...bind], type: QueryTypes.SELECT, raw: true }).catch(asSqlite);
  }

  async one<T extends object>(sql: string, bind: readonly SqlValue[] = []): Promise<T | undefined> {
    return (await this.all<T>(sql, bind))[0];
  }

  async run(sql: string, bind: readonly SqlValue[] = []): Promise<void> {
    await this.sequelize.query(sql, { bind: [...bind], type: QueryTypes.RAW }).catch(asSqlite);
  }

  async insert<T extends TableName>(table: T, row: Partial<Row<T>>): Promise<number> {
    const record = await (this.models[table] as ModelStatic<Model>).create(row);
    return record.get('id') as number;
  }

  async insertMany<T extends TableName>(table: T, rows: readonly Partial<Row<T>>[]): Promise<void> {
    for (let at = 0; at < rows.length; at += ROWS_A_STATEMENT)
      await this.sequelize.getQueryInterface().bulkInsert(table, rows.slice(at, at + ROWS_A_STATEMENT));
  }
}

/** What SQLite said, instead of what Sequelize takes it for: “Validation error” says nothing of a trigger that refused. */
function asSqlite(error: unknown): never {
  throw (error as { original?: unknown }).original ?? error;
}

/**
 * One SQLite file with a single writing connection and a second one for reading.
 *
 * Sequelize would open a connection for every transaction of its own, which costs more than the posting itself, so
 * transactions are begun and ended by hand on the one writer and queue up behind each other.
 */
export class Database {
  private queue: Promise<unknown> = Promise.resolve();

  private constructor(
    /** Where it lies, for a thread that reads it for itself. */
    readonly file: string,
    private readonly writer: Connection,
    private readonly readerConnection: Connection,
  ) {}

  /** @param options.durable false for a throw-away file that is only kept once it is whole, like the demo's */
  static async open(file: string, options: { readonly durable: boolean } = { durable: true }): Promise<Database> {
    mkdirSync(dirname(file), { recursive: true });
    const synchronous = `synchronous = ${options.durable ? 'FULL' : 'OFF'}`;
    const writer = await Connection.open(file, ['journal_mode = WAL', synchronous]);
    return new Database(file, writer, await Connection.open(file, READING));
  }

  /** Answers from one moment of the file over a connection of its own, as a thread does that holds nobody up. */
  static async readOnce<T>(file: string, work: (db: Reader) => Promise<T>): Promise<T> {
    const connection = await Connection.open(file, READING);
    try {
      await connection.script('BEGIN');
      return await work(connection);
    } finally {
      await connection.close();
    }
  }

  get reader(): Reader {
    return this.readerConnection;
  }

  /** Runs `work` in one transaction: all of it takes effect, or none when it throws. */
  write<T>(work: (tx: Writer) => Promise<T>): Promise<T> {
    return this.alone(async () => {
      await this.writer.driver.run('BEGIN IMMEDIATE');
      try {
        const result = await work(this.writer);
        await this.writer.driver.run('COMMIT');
        return result;
      } catch (error) {
        // SQLite may have rolled back by itself; the first error is the one to tell.
        await this.writer.driver.run('ROLLBACK').catch(() => undefined);
        throw error;
      }
    });
  }

  /** Hands every statement of both connections to `listen`, as SQLite runs it; returns how to end that. */
  trace(listen: (sql: string) => void): () => void {
    const ends = [this.writer, this.readerConnection].map((connection) => connection.trace(listen));
    return () => {
      for (const end of ends) end();
    };
  }

  /** The writing connection outside a transaction, for migrations and maintenance. */
  maintain<T>(work: (maintenance: Maintenance) => Promise<T>): Promise<T> {
    const { writer } = this;
    return this.alone(() =>
      work({
        sequelize: writer.sequelize,
        script: (sql) => writer.script(sql),
        all: (sql) => writer.all(sql),
      }),
    );
  }

  async close(): Promise<void> {
    await this.queue.catch(() => undefined);
    await this.readerConnection.close();
    await this.writer.close();
  }

  private alone<T>(work: () => Promise<T>): Promise<T> {
    const turn = this.queue.then(work, work);
    this.queue = turn.catch(() => undefined);
    return turn;
  }
}
