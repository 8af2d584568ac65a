/** One look that runs: its module, its tape, and what hands have changed. */

import type { Look, Signal } from "./data";
import { Module } from "./module";
import { Spots } from "./spots";
import { Tape } from "./tape";

/** What a hand did: from a frame on a signal has these numbers, is lost, or is let go of. */
export interface Deed {
  /** Seconds from the beginning. */
  at: number;
  signal: string;
  what: "set" | "lost" | "free";
  values: number[];
}

const SNAPSHOT_EVERY = 250;
/** These come once, and are not held. */
export const MOMENTS: ReadonlySet<string> = new Set(["event", "text"]);

export class Run {
  readonly tape: Tape | undefined;
  readonly spots: Spots;
  /** The newest frame that was made; -1 before any. */
  frame = -1;
  /** How many frames were made in all. */
  made = 0;
  private snapshots = new Map<number, Uint8Array>();
  private readonly signals: Signal[];
  private held = new Map<string, Deed>();
  private next = 0;

  private constructor(
    readonly look: Look,
    readonly module: Module,
    private deeds: readonly Deed[],
  ) {
    this.tape = look.tape ? new Tape(look.tape) : undefined;
    this.spots = new Spots(look);
    this.signals = look.signals.filter((signal) => signal.of === "");
  }

  static async start(look: Look, deeds: readonly Deed[]): Promise<Run> {
    return new Run(look, await Module.start(look), deeds);
  }

  /** The newest frame as the eye sees it. */
  seen(): Uint8Array {
    return this.module.seen();
  }

  frameAt(time: number): number {
    return Math.floor(time * this.look.rate + 1e-6);
  }

  clockMs(frame: number): number {
    return this.tape?.clockMs(frame) ?? Math.round((frame * 1000) / this.look.rate);
  }

  /** Forget what was made from a time on, since hands have changed something there. */
  changed(at: number): void {
    const first = this.frameOf(at);
    for (const frame of this.snapshots.keys()) if (frame >= first) this.snapshots.delete(frame);
    if (first <= this.frame) this.begin(this.frame);
  }

  /** Make frames up to one; told of each. Back in time it begins again before it. */
  goTo(frame: number, made?: (frame: number) => void): void {
    if (frame < this.frame) this.begin(frame);
    while (this.frame < frame) {
      this.step();
      made?.(this.frame);
    }
  }

  /** The bytes of every frame of the tape, from power-up on, on a module of their own. */
  async film(frames: number): Promise<Uint8Array> {
    const other = await Run.start(this.look, []);
    const size = 3 * this.look.spots.count;
    const found = new Uint8Array(frames * size);
    other.goTo(frames - 1, (frame) => found.set(other.module.rgb(), frame * size));
    return found;
  }

  private frameOf(at: number): number {
    return Math.ceil(at * this.look.rate - 1e-6);
  }

  /** Stand where the newest snapshot before a frame does. */
  private begin(frame: number): void {
    let best = -1;
    for (const known of this.snapshots.keys()) if (known <= frame && known > best) best = known;
    if (best < 0) this.module.reset();
    else this.module.restore(this.snapshots.get(best)!);
    this.frame = best;
    this.made++;
    this.held.clear();
    this.next = 0;
    while (this.next < this.deeds.length && this.frameOf(this.deeds[this.next]!.at) <= best) this.take();
  }

  private take(): Deed {
    const deed = this.deeds[this.next++]!;
    if (deed.what === "free") this.held.delete(deed.signal);
    else this.held.set(deed.signal, deed);
    return deed;
  }

  private step(): void {
    this.frame++;
    this.made++;
    const fresh = new Map<string, Deed>();
    while (this.next < this.deeds.length && this.frameOf(this.deeds[this.next]!.at) <= this.frame) {
      const deed = this.take();
      fresh.set(deed.signal, deed);
    }
    for (const signal of this.signals) this.feed(signal, fresh.get(signal.name));
    this.module.step(this.clockMs(this.frame));
    if (this.frame % SNAPSHOT_EVERY === SNAPSHOT_EVERY - 1) {
      this.snapshots.set(this.frame, this.module.snapshot());
    }
  }

  private feed(signal: Signal, fresh: Deed | undefined): void {
    const held = this.held.get(signal.name);
    const isMoment = MOMENTS.has(signal.kind);
    if (held?.what === "lost") return;
    if (fresh?.what === "set" || (held && !isMoment)) {
      const values = (fresh?.what === "set" ? fresh : held)!.values;
      signal.parts.forEach((part, i) => this.module.feed(part, values[i] ?? 0));
      return;
    }
    for (const part of signal.parts) {
      const isBack = fresh?.what === "free" && !isMoment;
      const value = isBack ? this.tape?.last(part, this.frame) : this.tape?.news(part, this.frame);
      if (value !== undefined) this.module.feed(part, value);
    }
  }
}
