import { useState } from 'react';
import { saveTable } from '../api/table.ts';
import { Menu } from './Menu.tsx';
import { ProblemBox } from './Problem.tsx';

/** One column of a file: amounts as plain decimals, days as ISO days. */
export interface FileColumn<Row> {
  readonly title: string;
  readonly text: (row: Row) => string;
  readonly isAmount?: boolean;
}

interface Props<Row> {
  /** What the list is called, which the file bears. */
  readonly name: string;
  readonly columns: readonly FileColumn<Row>[];
  /** The day it tells of, where that is not today. */
  readonly day?: string;
  /** All rows of the list as it is filtered, also those that are not shown yet. */
  readonly rows: () => Promise<readonly Row[]> | readonly Row[];
}

/** A list as it is shown, in a file. */
export function Export<Row>({ name, columns, day, rows }: Props<Row>) {
  const [error, setError] = useState<unknown>(null);
  const save = (format: 'csv' | 'xlsx') => async () => {
    setError(null);
    try {
      await saveTable(format, {
        name,
        ...(day ? { day } : {}),
        columns: columns.map(({ title, isAmount = false }) => ({ title, amount: isAmount })),
        rows: (await rows()).map((row) => columns.map(({ text }) => text(row))),
      });
    } catch (fault) {
      setError(fault);
    }
  };
  return (
    <>
      <Menu
        look="ghost"
        label="Export"
        deeds={[
          { id: 'csv', name: 'CSV file', act: () => void save('csv')() },
          { id: 'xlsx', name: 'XLSX file', act: () => void save('xlsx')() },
        ]}
      />
      <ProblemBox error={error} />
    </>
  );
}
