import { expect, it } from "vitest";
import { Tape } from "../src/tape";

const base64 = (array: Uint8Array | Uint32Array | Float32Array): string =>
  btoa(String.fromCharCode(...new Uint8Array(array.buffer, array.byteOffset, array.byteLength)));

it("a tape gives news in its frames, and keeps what came last", () => {
  const tape = new Tape({
    name: "t", frames: 10, clock_ms: base64(new Uint32Array([0, 20, 40, 60, 80, 100, 120, 140, 160, 180])),
    courses: { rpm: { news: base64(new Uint8Array([0b0000_0100, 0b10])), values: base64(new Float32Array([7, 9.5])) } },
  });
  expect([1, 2, 3, 9].map((frame) => tape.news("rpm", frame))).toEqual([undefined, 7, undefined, 9.5]);
  expect([1, 2, 8, 9, 50].map((frame) => tape.last("rpm", frame))).toEqual([undefined, 7, 7, 9.5, 9.5]);
  expect(tape.news("other", 2)).toBeUndefined();
  expect(tape.clockMs(3)).toBe(60);
});
