import type { Program } from '@yosegi/core/coverage';
import type { Highs } from 'highs';

/** How far a search has come. */
export interface Found {
  /** The best choice so far: yes or no in each column; null before there was any. */
  readonly yes: readonly boolean[] | null;
  /** What it is worth, and the most that any could still be. */
  readonly worth: number;
  readonly atMost: number;
  readonly seconds: number;
  /** Whether nothing better is possible. */
  readonly isBest: boolean;
}

/**
 * Finds the choice that is worth the most, by branch and cut (HiGHS).
 * @param seconds after so long it stops with the best it has
 * @param tell is told whenever something better is found, and now and then how far it has come
 * @throws Error where the solver gave no choice and no bound, or cannot reckon with numbers so large
 */
export function solve(highs: Highs, program: Program, seconds: number, tell: (found: Found) => void): Found {
  const { worth } = program;
  const rows = program.rows.map(inSmallest);
  const unit = gcdOf(worth);
  refuseTooLarge([...worth.map((one) => one / unit), ...rows.flatMap(({ factors, most }) => [...factors, most])]);
  const { callbackType, modelStatus, objectiveSense, variableType } = highs.constants;
  const columns = worth.length;
  const all = worth.reduce((sum, one) => sum + one, 0);
  if (columns === 0) return { yes: [], worth: 0, atMost: 0, seconds: 0, isBest: true };
  const starts = [0];
  for (const row of rows) starts.push((starts.at(-1) ?? 0) + row.columns.length);
  return highs.withModel(
    {
      numCols: columns,
      numRows: rows.length,
      sense: objectiveSense.maximize,
      colCost: worth.map((one) => one / unit),
      colLower: worth.map(() => 0),
      colUpper: worth.map(() => 1),
      rowLower: rows.map(() => -highs.infinity),
      rowUpper: rows.map(({ most }) => most),
      matrix: {
        format: 'csr',
        numRows: rows.length,
        numCols: columns,
        starts,
        indices: rows.flatMap((row) => row.columns),
        values: rows.flatMap((row) => row.factors),
      },
      integrality: worth.map(() => variableType.integer),
    },
    (model) => {
      model.options.set({
        output_flag: false,
        time_limit: seconds,
        mip_rel_gap: 0,
        // Worths are whole numbers: less than one apart is the same.
        mip_abs_gap: 0.5,
        mip_feasibility_tolerance: 1e-9,
        primal_feasibility_tolerance: 1e-9,
      });
      let best: readonly boolean[] | null = null;
      let [worthOfBest, atMost] = [0, all];
      const told = (seconds: number, isBest: boolean): Found => ({
        yes: best,
        worth: worthOfBest,
        atMost,
        seconds,
        isBest,
      });
      model.run({
        [callbackType.mipImprovingSolution]: ({ data }) => {
          if (!data.mip_solution) return;
          best = yesOf(data.mip_solution);
          worthOfBest = worthOf(best, worth);
          tell(told(data.running_time ?? 0, false));
        },
        [callbackType.mipLogging]: ({ data }) => {
          if (data.mip_dual_bound !== undefined && Number.isFinite(data.mip_dual_bound))
            atMost = Math.min(atMost, Math.floor(data.mip_dual_bound + 1e-6) * unit);
          tell(told(data.running_time ?? 0, false));
        },
      });
      const status = model.getModelStatus();
      const ran = model.getRunTime();
      if (status === modelStatus.optimal) {
        best = yesOf(model.getSolution().colValue);
        worthOfBest = worthOf(best, worth);
        atMost = worthOfBest;
        return told(ran, true);
      }
      if (best === null && status !== modelStatus.timeLimit) throw new Error(`the solver ended with status ${status}`);
      return told(ran, false);
    },
  );
}

/** Beyond this the solver takes a number for one without end. */
const LARGEST = 1e15;

/** Whole numbers by their greatest common divisor: the same question in the smallest numbers. */
function inSmallest(row: Program['rows'][number]): Program['rows'][number] {
  const unit = gcdOf(row.factors);
  return { ...row, factors: row.factors.map((one) => one / unit), most: Math.floor(row.most / unit) };
}

function gcdOf(numbers: readonly number[]): number {
  let [divisor, other] = [0, 0];
  for (const one of numbers)
    for ([divisor, other] = [Math.abs(one), divisor]; other > 0; [divisor, other] = [other, divisor % other]);
  return Math.max(1, divisor);
}

function refuseTooLarge(numbers: readonly number[]): void {
  if (numbers.some((one) => Math.abs(one) >= LARGEST)) throw new Error('beyond what the solver reckons exactly');
}

const yesOf = (values: Float64Array) => Array.from(values, (value) => value > 0.5);

const worthOf = (yes: readonly boolean[], worth: readonly number[]) =>
  yes.reduce((sum, is, at) => sum + (is ? (worth[at] ?? 0) : 0), 0);
