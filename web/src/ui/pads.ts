/** What other than a slider moves signals: a touched LED, and the axes of a gamepad. */

import type { Player } from "../player";

const STILL = 0.08;

export class Pads {
  /** The event that a touched LED makes; empty for none. */
  event = "";
  /** Axes of the first gamepad, by number, and the signal that each moves. */
  readonly axes = new Map<number, string>();
  private readonly last = new Map<number, number>();

  constructor(
    private readonly player: Player,
    private readonly changed: () => void,
  ) {}

  choose(event: string): void {
    this.event = event;
    this.changed();
  }

  bind(axis: number, signal: string): void {
    if (signal) this.axes.set(axis, signal);
    else this.axes.delete(axis);
    this.changed();
  }

  /** How many axes there are; 0 without a gamepad. */
  get count(): number {
    return gamepad()?.axes.length ?? 0;
  }

  /** An LED was touched, at a place in mm. */
  touch(place: ArrayLike<number>): boolean {
    if (!this.event) return false;
    const unit = this.player.first.look.unit_mm;
    this.player.do(this.event, "set", [1, place[0]! / unit, place[1]! / unit, place[2]! / unit]);
    return true;
  }

  poll(): void {
    if (this.axes.size === 0) return;
    const pad = gamepad();
    if (!pad) return;
    for (const [axis, name] of this.axes) {
      const value = pad.axes[axis] ?? 0;
      const signal = this.player.first.look.signals.find((each) => each.name === name);
      const before = this.last.get(axis);
      if (!signal || (before !== undefined && Math.abs(value - before) < 0.004)) continue;
      this.last.set(axis, value);
      const held = Math.abs(value) < STILL ? 0 : value;
      const share = signal.low < 0 ? (held + 1) / 2 : Math.max(held, 0);
      this.player.do(name, "set", [signal.low + share * (signal.high - signal.low)]);
    }
  }
}

function gamepad(): Gamepad | undefined {
  if (typeof navigator.getGamepads !== "function") return undefined;
  return navigator.getGamepads().find((each) => each !== null) ?? undefined;
}
