import type { ReturnRow } from '@yosegi/contract';
import { useState } from 'react';
import { saveTable } from '../api/table.ts';
import { Button } from '../ui/Button.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { dayOf } from '../ui/today.ts';
import { stateWords } from './words.ts';

const COLUMNS = ['Return', 'Customer', 'What', 'Why', 'State', 'Came back on', 'Worth', 'Owed'].map((title) => ({
  title,
  amount: title === 'Worth' || title === 'Owed',
}));

/** What is owed for what came back, as a file for whoever keeps the accounts. */
export function TableFileButtons({ rows }: { rows: readonly ReturnRow[] }) {
  const [error, setError] = useState<unknown>(null);
  const save = (format: 'csv' | 'xlsx') => {
    const cells = rows.map((row) => [
      row.number,
      row.customer,
      row.what,
      row.reasons,
      stateWords[row.state],
      row.arrivedAt === null ? '' : dayOf(row.arrivedAt),
      row.value,
      row.owed,
    ]);
    saveTable(format, { name: 'returns', columns: COLUMNS, rows: cells }).then(() => setError(null), setError);
  };
  if (rows.length === 0) return null;
  return (
    <>
      <Button look="ghost" onPress={() => save('csv')}>
        As CSV
      </Button>
      <Button look="ghost" onPress={() => save('xlsx')}>
        As a workbook
      </Button>
      <ProblemBox error={error} />
    </>
  );
}
