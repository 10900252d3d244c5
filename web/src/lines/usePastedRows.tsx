import type { Item } from '@yosegi/contract';
import { newKey } from '@yosegi/contract/key';
import { useState } from 'react';
import { z } from 'zod';
import { persistently } from '../api/part.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { useKept } from '../ui/useKept.ts';
import type { Figures, PastedRow } from './matchPasted.ts';
import { Unmatched } from './Unmatched.tsx';

const Rows = z.array(z.custom<PastedRow>((row) => typeof row === 'object' && row !== null && 'likely' in row));

/**
 * Rows of a spreadsheet pasted where one item is asked for: what is certain becomes lines at once, what is not stands over
 * them until it is placed or left out.
 * @param keepAs under which rows without an item stay
 */
export function usePastedRows(keepAs: string, place: (item: Item, figures: Figures) => void) {
  const [rows, setRows, forget] = useKept<readonly PastedRow[]>(`${keepAs}.mending`, () => [], Rows);
  const [error, setError] = useState<unknown>(null);
  const paste = async (text: string) => {
    try {
      setError(null);
      // Few paste, so what reads it is fetched then.
      const { matchPasted } = await persistently(() => import('./matchPasted.ts'));
      const { found, unknown } = await matchPasted(text);
      for (const { item, ...figures } of found) place(item, figures);
      setRows((before) => [...before, ...unknown.map((row) => ({ ...row, key: newKey() }))]);
    } catch (fault) {
      setError(fault);
    }
  };
  const settled = (row: PastedRow) => setRows((before) => before.filter(({ key }) => key !== row.key));
  return {
    onPasteRows: (text: string) => void paste(text),
    forget,
    unplaced: (
      <>
        <Unmatched
          rows={rows}
          onPlace={(row, item) => {
            place(item, row);
            settled(row);
          }}
          onLeaveOut={settled}
        />
        <ProblemBox error={error} />
      </>
    ),
  };
}
