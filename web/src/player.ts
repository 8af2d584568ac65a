/** Time: plays one look, or two side by side, and keeps what hands have done. */

import type { PageData } from "./data";
import { brightness, FlashGuard } from "./guard";
import { type Deed, Run } from "./run";

export interface Timing {
  /** Milliseconds of the newest frames: in the module, to draw, and from picture to picture. */
  module: number[];
  draw: number[];
  between: number[];
}

const KEPT = 240;
const FREE_S = 30;

export class Player {
  time = 0;
  isPlaying = false;
  speed = 1;
  /** Whether the page has gone to its first moment, and listens. */
  isReady = false;
  /** Whether flashes are shown as they are: not yet asked, yes, or no. */
  flashes: "unasked" | "asking" | "shown" | "dimmed" = "unasked";
  readonly timing: Timing = { module: [], draw: [], between: [] };
  private readonly guards = new Map<Run, FlashGuard>();
  private readonly listeners = new Set<() => void>();
  private readonly painters: ((run: Run) => void)[] = [];

  private constructor(
    readonly runs: readonly Run[],
    readonly deeds: Deed[],
  ) {}

  static async start(data: PageData, deeds: readonly Deed[]): Promise<Player> {
    const shared = deeds.toSorted((a, b) => a.at - b.at);
    const runs = await Promise.all(data.looks.map((look) => Run.start(look, shared)));
    const player = new Player(runs, shared);
    player.goTo(0);
    return player;
  }

  get first(): Run {
    return this.runs[0]!;
  }

  get period(): number {
    return 1 / this.first.look.rate;
  }

  /** Where the last frame of the tape is; without a tape, time goes on. */
  get end(): number {
    const tape = this.first.tape;
    if (tape) return (tape.frames - 1) * this.period;
    return FREE_S * Math.max(1, Math.ceil((this.time + 1) / FREE_S));
  }

  onChange(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** Called with each frame that a run makes. */
  onFrame(painter: (run: Run) => void): void {
    this.painters.push(painter);
  }

  tell(): void {
    for (const listener of this.listeners) listener();
  }

  goTo(time: number): void {
    const last = this.first.tape ? this.end : Infinity;
    this.time = Math.min(Math.max(time, 0), last);
    const begin = performance.now();
    for (const run of this.runs) {
      run.goTo(run.frameAt(this.time), () => {
        for (const paint of this.painters) paint(run);
        this.watch(run);
      });
    }
    keep(this.timing.module, performance.now() - begin);
    if (!this.isPlaying) for (const guard of this.guards.values()) guard.reset();
  }

  /** Stop where a look flashes too often, until somebody says that it may. */
  private watch(run: Run): void {
    if (this.flashes !== "unasked" || !this.isPlaying) return;
    const guard = this.guards.get(run) ?? new FlashGuard();
    this.guards.set(run, guard);
    if (!guard.push(run.frame / run.look.rate, brightness(run.module.seen()))) return;
    this.flashes = "asking";
    this.play(false);
  }

  /** So much time has passed on the wall. */
  pass(seconds: number): void {
    keep(this.timing.between, seconds * 1000);
    if (!this.isPlaying) return;
    const ahead = this.time + Math.min(seconds, 0.25) * this.speed;
    this.goTo(ahead);
    if (this.first.tape && ahead >= this.end) {
      this.isPlaying = false;
      this.tell();
    }
  }

  play(isPlaying: boolean): void {
    if (isPlaying && this.first.tape && this.time >= this.end - 1e-9) this.goTo(0);
    this.isPlaying = isPlaying;
    this.tell();
  }

  stepBy(frames: number): void {
    this.isPlaying = false;
    const frame = this.first.frameAt(this.time) + frames;
    this.goTo(frame * this.period);
    this.tell();
  }

  /** A hand changes a signal, from the next frame on while it plays, else from this one. */
  do(signal: string, what: Deed["what"], values: number[] = []): void {
    const frame = this.first.frameAt(this.time) + (this.isPlaying ? 1 : 0);
    const at = frame * this.period;
    const same = this.deeds.findIndex((deed) => deed.signal === signal && Math.abs(deed.at - at) < 1e-9);
    if (same >= 0) this.deeds.splice(same, 1);
    const place = this.deeds.findIndex((deed) => deed.at > at + 1e-9);
    this.deeds.splice(place < 0 ? this.deeds.length : place, 0, { at, signal, what, values });
    const now = this.time;
    for (const run of this.runs) run.changed(at);
    this.goTo(now);
    this.tell();
  }

  /** What a hand last did to a signal, up to now; none where the tape leads. */
  deedOf(signal: string): Deed | undefined {
    const past = this.deeds.filter((deed) => deed.signal === signal && deed.at <= this.time + this.period);
    const last = past.at(-1);
    return last?.what === "free" ? undefined : last;
  }

  answer(isShown: boolean): void {
    this.flashes = isShown ? "shown" : "dimmed";
    this.play(true);
  }
}

/** Keep the newest of some figures. */
export function keep(values: number[], value: number): void {
  values.push(value);
  if (values.length > KEPT) values.shift();
}
