/** The same choices in the same order for the same seed (mulberry32). */
export class Dice {
  private state: number;

  constructor(seed: number) {
    this.state = seed | 0;
  }

  /** From 0 up to, but not, 1. */
  roll(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  }

  upTo = (most: number) => Math.floor(this.roll() * (most + 1));
  chance = (share: number) => this.roll() < share;
  of<T>(choices: readonly T[]): T {
    return choices[this.upTo(choices.length - 1)] as T;
  }
}
