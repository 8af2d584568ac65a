/** A design's WebAssembly module: what goes in, a step in time, and what it shows and tells. */

import { bytesOf } from "./bytes";
import type { Look, Memory, Reading } from "./data";

interface Exports {
  memory: WebAssembly.Memory;
  init: () => void;
  step: (nowMs: number) => void;
  paint: () => void;
  draw?: () => void;
  see?: () => void;
  [name: string]: unknown;
}

/** Red, green and blue, linear light from 0 to 1. */
export type Light = [number, number, number];

/** A colour that is told by its channels; none where one of them is not. */
export function lightOf(told: (name: string) => number | undefined, name: string): Light | undefined {
  const channels = ["red", "green", "blue"].map((channel) => told(`${name}:${channel}`));
  return channels.includes(undefined) ? undefined : (channels as Light);
}

export class Module {
  readonly places: Memory;
  private readonly exports: Exports;
  private readonly owners: readonly string[];

  private constructor(look: Look, exports: Exports) {
    this.places = look.memory;
    this.exports = exports;
    this.owners = Object.keys(look.memory.signals);
    this.reset();
  }

  static async start(look: Look): Promise<Module> {
    const { instance } = await WebAssembly.instantiate(bytesOf(look.module), {});
    return new Module(look, instance.exports as unknown as Exports);
  }

  /** As after power-up. */
  reset(): void {
    this.exports.init();
    this.leaveOut(() => false);
  }

  /** News of a number that comes in, for the next step. */
  feed(part: string, value: number): void {
    const at = this.places.signals[part];
    if (at === undefined) return;
    const view = this.view();
    view.setFloat32(at, value, true);
    view.setUint32(at + 4, 1, true);
  }

  /** The next frame, at a time of the design's clock. */
  step(nowMs: number): void {
    this.exports.step(nowMs | 0);
    const view = this.view();
    for (const part of this.owners) view.setUint32(this.places.signals[part]! + 4, 0, true);
  }

  /** All that it remembers. */
  snapshot(): Uint8Array {
    return new Uint8Array(this.exports.memory.buffer, 0, this.places.state_end).slice();
  }

  restore(state: Uint8Array): void {
    new Uint8Array(this.exports.memory.buffer).set(state);
  }

  /** The newest frame as it goes to the LEDs: red, green and blue of every spot. */
  rgb(): Uint8Array {
    return new Uint8Array(this.exports.memory.buffer, this.places.rgb, 3 * this.places.leds);
  }

  /** The same as the eye sees it, where white is balanced. */
  seen(): Uint8Array {
    this.exports.see?.();
    return new Uint8Array(this.exports.memory.buffer, this.places.seen, 3 * this.places.leds);
  }

  /** What the light of the newest frame draws of each supply, in amperes. */
  amps(): Record<string, number> {
    this.exports.draw?.();
    const view = this.view();
    const found: Record<string, number> = {};
    for (const [supply, at] of Object.entries(this.places.draws)) {
      found[supply] = view.getFloat64(at, true) / 255 / 1e6;
    }
    return found;
  }

  /** What a limiter lets through, from 0 to 1. */
  letThrough(supply: string): number {
    const at = this.places.limits[supply];
    return at === undefined ? 1 : this.view().getUint32(at, true) / 65_536;
  }

  /** A number of the newest frame; a truth is 0 or 1. */
  read(reading: Reading | undefined): number {
    if (!reading) return 0;
    if (reading.at === null || reading.at === undefined) return reading.value ?? 0;
    const view = this.view();
    return reading.kind === "f32" ? view.getFloat32(reading.at, true) : view.getUint32(reading.at, true);
  }

  told(name: string): number | undefined {
    const reading = this.places.told[name];
    return reading && this.read(reading);
  }

  toldLight(name: string): Light | undefined {
    return lightOf((each) => this.told(each), name);
  }

  /** Paint the newest frame once more with some layers left out; gives the light of one spot. */
  lightWithout(spot: number, isOut: (layer: number) => boolean): Light {
    this.leaveOut(isOut);
    this.exports.paint();
    this.leaveOut(() => false);
    const { canvas, plane } = this.places;
    const view = this.view();
    const channel = (c: number): number => view.getFloat32(canvas + c * plane + 4 * spot, true);
    return [channel(0), channel(1), channel(2)];
  }

  /** What a layer's numbers are at one of its spots, by the spot's place in the layer and in all. */
  tell(layer: number, place: number, spot: number): (name: string) => number | undefined {
    const painted = this.places.layers.find((each) => each.number === layer);
    const ask = this.exports[`tell${layer}`];
    if (typeof ask === "function") (ask as (place: number, spot: number) => void)(place, spot);
    return (name) => {
      const own = painted?.tells[name];
      return own ? this.read(own) : this.told(`why:layer:${layer}:${name}`);
    };
  }

  private leaveOut(isOut: (layer: number) => boolean): void {
    const view = this.view();
    for (const each of this.places.layers) view.setUint32(each.left_out, isOut(each.number) ? 1 : 0, true);
  }

  private view(): DataView {
    return new DataView(this.exports.memory.buffer);
  }
}
