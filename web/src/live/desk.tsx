/** The desk: the design's file as this page knows it, and every way in which it is changed. */

import type { Sheet } from "../data";
import type { LivePicture, Link } from "./link";
import { PlaceSide } from "./place_side";

export type Edit = Record<string, unknown> & { do: string };

export class Desk {
  sheet: Sheet | undefined;
  problem = "";
  /** The part that is chosen, and the LEDs, by their spots. */
  part = "";
  chosen: ReadonlySet<number> = new Set();
  /** From step to step of what is dragged, in the design's unit; 0 for none. */
  snap = 5;
  single = false;
  /** Whether a pointer draws a trail over LEDs; and those that it has passed, in order. */
  isDrawing = false;
  drawn: readonly number[] = [];
  private last: Promise<unknown> = Promise.resolve();
  photo: { address: string; width: number; x: number; y: number; opacity: number } | undefined;

  constructor(
    readonly link: Link,
    readonly tell: () => void,
  ) {}

  readonly Side = ({ picture }: { picture: LivePicture }) => <PlaceSide desk={this} picture={picture} />;

  async load(): Promise<void> {
    await this.take(() => this.link.call<Sheet>("GET", "/api/design"));
  }

  async edit(...edits: Edit[]): Promise<boolean> {
    return this.take(() => this.link.call<Sheet>("POST", "/api/design/edit", { edits, version: this.sheet?.version ?? "" }));
  }

  /** version: of the text that this one takes the place of. */
  async write(text: string, version: string): Promise<boolean> {
    return this.take(() => this.link.call<Sheet>("PUT", "/api/design", { text, version }));
  }

  async undo(): Promise<void> {
    await this.take(() => this.link.call<Sheet>("POST", "/api/design/undo"));
  }

  async redo(): Promise<void> {
    await this.take(() => this.link.call<Sheet>("POST", "/api/design/redo"));
  }

  choose(part: string, spots: Iterable<number> = []): void {
    this.part = part;
    this.chosen = new Set(spots);
    this.drawn = [];
    this.tell();
  }

  /** One after the other, so that each knows the text that the one before has left. */
  private take(ask: () => Promise<Sheet>): Promise<boolean> {
    const done = this.last.then(() => this.taken(ask));
    this.last = done;
    return done;
  }

  draw(spots: readonly number[]): void {
    this.choose("", spots);
    this.drawn = spots;
    this.tell();
  }

  private async taken(ask: () => Promise<Sheet>): Promise<boolean> {
    try {
      this.sheet = await ask();
      this.problem = "";
      return true;
    } catch (error) {
      this.problem = error instanceof Error ? error.message : String(error);
      return false;
    } finally {
      this.tell();
    }
  }
}

/** LEDs in an order as a trail joins them: rows of places, `-` before one that runs to lower places. */
export function asTrail(spots: readonly number[], partOf: (spot: number) => string, indexOf: (spot: number) => number): string[] {
  const rows: { part: string; first: number; last: number; way: number }[] = [];
  for (const spot of spots) {
    const [part, index] = [partOf(spot), indexOf(spot)];
    const row = rows.at(-1);
    const way = row && row.part === part ? index - row.last : 0;
    if (row && Math.abs(way) === 1 && (row.way === 0 || row.way === way)) [row.last, row.way] = [index, way];
    else rows.push({ part, first: index, last: index, way: 0 });
  }
  return rows.map(({ part, first, last, way }) => {
    if (way === 0) return `${part}[${first}]`;
    return way > 0 ? `${part}[${first}-${last}]` : `-${part}[${last}-${first}]`;
  });
}

/** LEDs as a design writes them: places in rows, by their parts, as `tail-bar[0-4]`. */
export function asChoice(spots: Iterable<number>, partOf: (spot: number) => string, indexOf: (spot: number) => number): string[] {
  const places = new Map<string, number[]>();
  for (const spot of spots) {
    const part = partOf(spot);
    places.set(part, [...(places.get(part) ?? []), indexOf(spot)]);
  }
  const found: string[] = [];
  for (const [part, indices] of places) {
    const rows: [number, number][] = [];
    for (const index of indices.toSorted((a, b) => a - b)) {
      const last = rows.at(-1);
      if (last && index === last[1] + 1) last[1] = index;
      else rows.push([index, index]);
    }
    for (const [first, end] of rows) found.push(first === end ? `${part}[${first}]` : `${part}[${first}-${end}]`);
  }
  return found;
}
