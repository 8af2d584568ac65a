/** Where one looks from: round the thing, and nearer or farther. Angles are in degrees. */

import { PerspectiveCamera, Vector3 } from "three";

const UP = 90;
/** The six sides: azimuth, 0 from behind, and height above the ground. */
export const SIDES: Record<string, [number, number]> = {
  top: [0, UP],
  bottom: [180, -UP],
  front: [180, 0],
  back: [0, 0],
  left: [-90, 0],
  right: [90, 0],
};
const FIELD = 24;
const MARGIN = 1.12;

export class Orbit {
  azimuth = 0;
  height = UP;
  zoom = 1;
  readonly camera = new PerspectiveCamera(FIELD, 1, 1, 1e6);
  /** What one looks at. */
  readonly target = new Vector3();
  private readonly middle = new Vector3();
  private readonly shift = new Vector3();

  constructor(private readonly points: Float32Array) {
    const low = new Vector3(Infinity, Infinity, Infinity);
    const high = low.clone().negate();
    const point = new Vector3();
    for (let i = 0; i < points.length; i += 3) {
      point.fromArray(points, i);
      low.min(point);
      high.max(point);
    }
    if (points.length > 0) this.middle.addVectors(low, high).multiplyScalar(0.5);
  }

  /** The name of the side that one looks from; empty between them. */
  get side(): string {
    const turned = ((this.azimuth % 360) + 360) % 360;
    const found = Object.entries(SIDES).find(
      ([, [azimuth, height]]) => Math.abs(height - this.height) < 0.01 && Math.abs(((azimuth + 360) % 360) - turned) < 0.01,
    );
    return found?.[0] ?? "";
  }

  look(side: string): void {
    const angles = SIDES[side] ?? side.split(",").map(Number);
    const [azimuth, height, zoom] = angles;
    if (azimuth === undefined || height === undefined || !Number.isFinite(azimuth + height)) return;
    this.azimuth = azimuth;
    this.height = Math.min(Math.max(height, -UP), UP);
    this.zoom = zoom !== undefined && zoom > 0 ? zoom : 1;
    this.shift.set(0, 0, 0);
  }

  /** As an address keeps it. */
  get text(): string {
    const side = this.side;
    if (side && Math.abs(this.zoom - 1) < 0.01) return side;
    return [this.azimuth, this.height, this.zoom].map((each) => String(Number(each.toFixed(2)))).join(",");
  }

  /** What tells it from any other place to look from. */
  get state(): string {
    return [this.azimuth, this.height, this.zoom, ...this.shift.toArray()].join();
  }

  turn(across: number, up: number): void {
    this.azimuth -= across;
    this.height = Math.min(Math.max(this.height + up, -UP), UP);
  }

  nearer(factor: number): void {
    this.zoom = Math.min(Math.max(this.zoom * factor, 0.3), 30);
  }

  /** Move the thing in the picture, in shares of its height. */
  move(across: number, up: number): void {
    const [right, upward] = this.axes();
    const size = this.span / this.zoom;
    this.shift.addScaledVector(right, -across * size).addScaledVector(upward, -up * size);
  }

  private span = 1;

  private axes(): [Vector3, Vector3, Vector3] {
    const turn = (this.azimuth * Math.PI) / 180;
    const height = (this.height * Math.PI) / 180;
    const right = new Vector3(Math.cos(turn), Math.sin(turn), 0);
    const back = new Vector3(
      Math.cos(height) * Math.sin(turn),
      -Math.cos(height) * Math.cos(turn),
      Math.sin(height),
    );
    return [right, new Vector3().crossVectors(back, right), back];
  }

  /** Put the camera there, so that all of the thing is in a picture of this shape. */
  place(width: number, height: number): void {
    const { camera, points, middle } = this;
    const [right, up, back] = this.axes();
    const half = Math.tan((FIELD * Math.PI) / 360);
    const aspect = width / Math.max(height, 1);
    let distance = 1;
    this.span = 1;
    const offset = new Vector3();
    for (let i = 0; i < points.length; i += 3) {
      offset.fromArray(points, i).sub(middle);
      const across = Math.abs(offset.dot(right)) / aspect;
      const upward = Math.abs(offset.dot(up));
      this.span = Math.max(this.span, 2 * across, 2 * upward);
      distance = Math.max(distance, (MARGIN * Math.max(across, upward, 1)) / half + offset.dot(back));
    }
    const target = this.target.copy(middle).add(this.shift);
    camera.aspect = aspect;
    camera.position.copy(target).addScaledVector(back, distance / this.zoom);
    camera.up.copy(up);
    camera.lookAt(target);
    camera.near = Math.max(distance / this.zoom / 100, 0.1);
    camera.far = distance * 20;
    camera.updateProjectionMatrix();
    camera.updateMatrixWorld();
  }
}
