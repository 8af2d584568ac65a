import { describe, expect, it } from "vitest";
import { Vector3 } from "three";
import { Orbit, SIDES } from "../src/space/camera";

/** An L of three points off the middle: x to the right, y forward, z up. */
const points = new Float32Array([0, 0, 0, 400, 0, 0, 0, 300, 50]);

describe("the six sides", () => {
  const across: Record<string, [number, number]> = {
    top: [1, 0], bottom: [-1, 0], front: [-1, 0], back: [1, 0], left: [0, -1], right: [0, 1],
  };
  for (const side of Object.keys(SIDES)) {
    it(`${side} has x and y where the stills have them, and all of the thing`, () => {
      const orbit = new Orbit(points);
      orbit.look(side);
      orbit.place(800, 600);
      const seen = (x: number, y: number, z: number): Vector3 => new Vector3(x, y, z).project(orbit.camera);
      const middle = seen(200, 150, 25);
      const [x, y] = across[side]!;
      expect(Math.sign(Math.round((seen(300, 150, 25).x - middle.x) * 1e3))).toBe(x);
      expect(Math.sign(Math.round((seen(200, 250, 25).x - middle.x) * 1e3))).toBe(y);
      for (let i = 0; i < points.length; i += 3) {
        const place = seen(points[i]!, points[i + 1]!, points[i + 2]!);
        expect(Math.max(Math.abs(place.x), Math.abs(place.y))).toBeLessThan(1);
      }
      expect(orbit.text).toBe(side);
    });
  }
});

it("an address gives the same view again", () => {
  const orbit = new Orbit(points);
  orbit.turn(35, -40);
  orbit.nearer(1.5);
  const other = new Orbit(points);
  other.look(orbit.text);
  expect(other.text).toBe(orbit.text);
  other.look("nonsense");
  expect(other.text).toBe(orbit.text);
});
