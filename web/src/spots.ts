/** The spots of a look, a row each: where they stand, and what they are called. */

import { wordsOf } from "./bytes";
import type { LiveLook } from "./data";

/** What there is to see of a design, whatever makes its frames. */
export type Shown = Omit<LiveLook, "kind" | "number" | "panel">;

export class Spots {
  readonly line: Uint32Array;
  readonly part: Uint32Array;
  readonly address: Uint32Array;
  private readonly index: Uint32Array;

  constructor(private readonly look: Shown) {
    this.line = wordsOf(look.spots.line);
    this.part = wordsOf(look.spots.part);
    this.address = wordsOf(look.spots.address);
    this.index = wordsOf(look.spots.index);
  }

  /** The place of a spot in its part. */
  indexOf(spot: number): number {
    return this.index[spot]!;
  }

  /** A spot by its part and its place in it, and its own name where it has one. */
  nameOf(spot: number): string {
    const own = this.look.spots.names[String(spot)];
    const place = `${this.look.parts[this.part[spot]!] ?? ""}:${this.index[spot]!}`;
    return own ? `${place} (${own})` : place;
  }
}
