/**
 * Flashes: a change of the whole up and down again. More than three in a second can hurt people
 * (WCAG 2.2, "Three flashes or below threshold": a tenth of full brightness, the darker below 0.8).
 */

const LEAST = 0.1;
const DARKER = 0.8;
const MOST = 3;
const WITHIN_S = 1;

export class FlashGuard {
  private extreme: number | undefined;
  private way = 0;
  private turns: number[] = [];

  /** Brightness, 0 to 1, at a time in seconds; whether there are more flashes than may be. */
  push(at: number, level: number): boolean {
    if (this.extreme === undefined) this.extreme = level;
    const change = level - this.extreme;
    if (Math.sign(change) === this.way || this.way === 0) {
      if (Math.abs(change) >= LEAST || Math.sign(change) === this.way) this.extreme = level;
      if (this.way === 0 && Math.abs(change) >= LEAST) this.way = Math.sign(change);
    } else if (Math.abs(change) >= LEAST && Math.min(level, this.extreme) < DARKER) {
      this.turns.push(at);
      this.way = Math.sign(change);
      this.extreme = level;
    }
    this.turns = this.turns.filter((turn) => at - turn < WITHIN_S);
    return this.turns.length >= 2 * (MOST + 1);
  }

  reset(): void {
    this.extreme = undefined;
    this.way = 0;
    this.turns = [];
  }
}

/** How bright a frame is as a whole: the mean of its LEDs' luminance, 0 to 1. */
export function brightness(rgb: Uint8Array): number {
  let total = 0;
  for (let i = 0; i < rgb.length; i += 3) {
    total += 0.2126 * rgb[i]! + 0.7152 * rgb[i + 1]! + 0.0722 * rgb[i + 2]!;
  }
  return rgb.length > 0 ? total / (255 * (rgb.length / 3)) : 0;
}
