export interface Result {
  readonly name: string;
  readonly measured: string;
  readonly baseline: string;
  readonly ratio: string;
  readonly promise: string;
  readonly holds: boolean;
}

/** The middle of several timings: one slow disk flush must not decide. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}

export const ms = (value: number) => `${value.toFixed(2)} ms`;
