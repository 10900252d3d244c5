import { createRequire } from 'node:module';
import { Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';

/** Sequelize on one SQLite file. */
export const openSequelize = (file: string) =>
  new Sequelize({ dialect: 'sqlite', dialectModule: sqlite3, storage: file, logging: false });

interface Query {
  run(...asked: unknown[]): Promise<unknown>;
}

/**
 * Sequelize formats a stack trace for every query in case that it fails, which costs more than most queries. Where one
 * fails, the error of SQLite and our own trace tell enough.
 */
function spareTraces(): void {
  const require = createRequire(import.meta.url);
  const { prototype } = require('sequelize/lib/dialects/sqlite/query').Query as { prototype: Query };
  const { run } = prototype;
  prototype.run = function (this: Query, ...asked) {
    const limit = Error.stackTraceLimit;
    Error.stackTraceLimit = 0;
    try {
      return run.apply(this, asked);
    } finally {
      Error.stackTraceLimit = limit;
    }
  };
}
spareTraces();
