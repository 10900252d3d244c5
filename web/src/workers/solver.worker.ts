import type { Program } from '@yosegi/core/coverage';
import loadHighs from 'highs';
import wasm from 'highs/runtime?url';
import { type Found, solve } from './solve.ts';

export interface ToSolver {
  readonly program: Program;
  /** After so many seconds it stops with the best it has. */
  readonly seconds: number;
}
export type FromSolver = { readonly found: Found; readonly isDone: boolean };

addEventListener('message', async ({ data }: MessageEvent<ToSolver>) => {
  try {
    const highs = await loadHighs({ locateFile: () => wasm });
    const tell = (found: Found, isDone: boolean) => postMessage({ found, isDone } satisfies FromSolver);
    tell(
      solve(highs, data.program, data.seconds, (found) => tell(found, false)),
      true,
    );
  } catch (error) {
    // Told as the worker's own end, so that a solver that cannot be loaded and one that breaks are one case.
    setTimeout(() => {
      throw error;
    });
  }
});
