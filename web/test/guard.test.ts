import { describe, expect, it } from "vitest";
import { brightness, FlashGuard } from "../src/guard";

/** Whether a light that goes up and down so often a second trips the guard within three seconds. */
function trips(hz: number, low: number, high: number): boolean {
  const guard = new FlashGuard();
  for (let i = 0; i < 150; i++) {
    const at = i / 50;
    if (guard.push(at, (at * hz) % 1 < 0.5 ? high : low)) return true;
  }
  return false;
}

describe("flashes", () => {
  it("are counted: four a second are too many, three are not", () => {
    expect(trips(4, 0, 0.9)).toBe(true);
    expect(trips(3, 0, 0.9)).toBe(false);
  });
  it("are none where little changes, or all of it is bright", () => {
    expect(trips(5, 0.4, 0.45)).toBe(false);
    expect(trips(5, 0.85, 1)).toBe(false);
  });
  it("are none in a light that only grows", () => {
    const guard = new FlashGuard();
    expect(Array.from({ length: 50 }, (_, i) => guard.push(i / 50, i / 50)).some(Boolean)).toBe(false);
  });
});

it("brightness is the mean luminance of all LEDs", () => {
  expect(brightness(new Uint8Array([255, 255, 255, 0, 0, 0]))).toBeCloseTo(0.5);
  expect(brightness(new Uint8Array([255, 0, 0]))).toBeCloseTo(0.2126);
});
