import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';

export type SqlValue = string | number | null | Buffer;
export type SqlRow = Record<string, SqlValue>;

/** SQLite takes statements of up to a million characters; this many rows stay far below. */
const ROWS_A_STATEMENT = 500;
const STATEMENTS_KEPT = 300;

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
  /** Inserts rows of the same columns, many with one statement. */
  insertMany(table: string, rows: readonly SqlRow[]): Promise<void>;
}

/** The writing connection outside of a transaction. */
export interface Maintenance {
  readonly sequelize: Sequelize;
  script(sql: string): Promise<void>;
  all(sql: string): Promise<object[]>;
}

/**
 * Sequelize opens the file, keeps the migrations and builds bulk inserts; single statements go straight to the driver on
 * the same connection, because Sequelize spends more on each than SQLite does (docs/decisions/sequelize.md).
 */
class Connection implements Writer {
  /** Statements that were prepared, the longest unused first: SQLite would read the same text anew each time. */
  private readonly prepared = new Map<string, Promise<sqlite3.Statement>>();

  private constructor(
    readonly sequelize: Sequelize,
    private readonly handle: sqlite3.Database,
  ) {}

  /** Sequelize keeps one connection for everything outside its own transactions; it is opened here, with its pragmas. */
  static async open(file: string, pragmas: readonly string[]): Promise<Connection> {
    const sequelize = new Sequelize({ dialect: 'sqlite', dialectModule: sqlite3, storage: file, logging: false });
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
    const statements = [...this.prepared.values()];
    this.prepared.clear();
    for (const statement of await Promise.allSettled(statements))
      if (statement.status === 'fulfilled') statement.value.finalize();
    return new Promise((resolve, reject) => {
      this.handle.close((error) => (error ? reject(error) : resolve()));
    });
  }

  async all<T extends object>(sql: string, bind: readonly SqlValue[] = []): Promise<T[]> {
    const statement = await this.statement(sql);
    return new Promise((resolve, reject) => {
      statement.all<T>(named(bind), (error, rows) => (error ? reject(error) : resolve(rows)));
    });
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

  async one<T extends object>(sql: string, bind: readonly SqlValue[] = []): Promise<T | undefined> {
    return (await this.all<T>(sql, bind))[0];
  }

  async run(sql: string, bind: readonly SqlValue[] = []): Promise<void> {
    await this.all(sql, bind);
  }

  async insert(table: string, row: SqlRow): Promise<number> {
    const columns = Object.keys(row);
    const values = columns.map((_, index) => `$${index + 1}`);
    const sql = `INSERT INTO ${table} (${columns.join(', ')}) VALUES (${values.join(', ')}) RETURNING rowid AS id`;
    const inserted = await this.one<{ id: number }>(sql, Object.values(row));
    if (!inserted) throw new Error(`no row inserted into ${table}`);
    return inserted.id;
  }

  async insertMany(table: string, rows: readonly SqlRow[]): Promise<void> {
    for (let at = 0; at < rows.length; at += ROWS_A_STATEMENT)
      await this.sequelize.getQueryInterface().bulkInsert(table, rows.slice(at, at + ROWS_A_STATEMENT));
  }
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
    private readonly writer: Connection,
    private readonly readerConnection: Connection,
  ) {}

  /** @param options.durable false for a throw-away file that is only kept once it is whole, like the demo's */
  static async open(file: string, options: { readonly durable: boolean } = { durable: true }): Promise<Database> {
    mkdirSync(dirname(file), { recursive: true });
    const synchronous = `synchronous = ${options.durable ? 'FULL' : 'OFF'}`;
    const writer = await Connection.open(file, ['journal_mode = WAL', synchronous]);
    return new Database(writer, await Connection.open(file, ['query_only = ON']));
  }

  get reader(): Reader {
    return this.readerConnection;
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
        // SQLite may have rolled back by itself; the first error is the one to tell.
        await this.writer.run('ROLLBACK').catch(() => undefined);
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

/** `$1`, `$2` … by name, so that a statement may use them in any order. */
const named = (bind: readonly SqlValue[]) => Object.fromEntries(bind.map((value, index) => [`$${index + 1}`, value]));
