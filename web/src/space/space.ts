/** The thing in space: every LED at its place, glowing, and the outline, by WebGL. */

import {
  AdditiveBlending,
  BufferAttribute,
  BufferGeometry,
  DynamicDrawUsage,
  GLSL3,
  HalfFloatType,
  InstancedBufferAttribute,
  InstancedBufferGeometry,
  Line,
  LineBasicMaterial,
  Mesh,
  MeshBasicMaterial,
  DoubleSide,
  NearestFilter,
  NormalBlending,
  RawShaderMaterial,
  Scene,
  Shape,
  ShapeGeometry,
  Vector2,
  Vector3,
  WebGLRenderer,
  WebGLRenderTarget,
  type IUniform,
  type Texture,
} from "three";
import { floatsOf, wordsOf } from "../bytes";
import type { Shown } from "../spots";
import { Orbit } from "./camera";
import * as shaders from "./shaders";

const SKIPPED = 0xffff_ffff;
/** Halos are soft, so they are drawn on a coarser grid: at least and at most by so much. */
const [LEAST_SOFT, MOST_SOFT] = [4, 24];
const CORE_OF_SPACING = 0.42;
const LEAST_PX = 1.2;

export class Space {
  readonly orbit: Orbit;
  readonly position: Float32Array;
  readonly spot: Uint32Array;
  dim = 1;
  private readonly renderer: WebGLRenderer;
  private readonly thing = new Scene();
  private readonly cores = new Scene();
  private readonly halos = new Scene();
  private readonly screen = new Scene();
  private readonly sharp: WebGLRenderTarget;
  private readonly soft: WebGLRenderTarget;
  private readonly colours: Uint8Array;
  private readonly colour: InstancedBufferAttribute;
  private readonly uniforms: Record<"eye" | "size" | "radius" | "scale" | "least" | "most" | "dim", IUniform>;
  private width = 1;
  private height = 1;

  /** Throws where there is no WebGL 2. */
  constructor(
    readonly canvas: HTMLCanvasElement,
    look: Shown,
  ) {
    this.renderer = new WebGLRenderer({ canvas, antialias: false, powerPreference: "high-performance" });
    this.renderer.autoClear = false;
    this.renderer.setClearColor(0x000000, 1);
    const { leds } = look;
    this.position = floatsOf(leds.position);
    this.spot = wordsOf(leds.spot);
    const low = lowest(this.position);
    const corners = leds.outline.flatMap((line) => line.flatMap(([x, y]) => [x ?? 0, y ?? 0, low]));
    this.orbit = new Orbit(new Float32Array([...this.position, ...corners]));
    this.colours = new Uint8Array(3 * leds.count);
    this.colour = new InstancedBufferAttribute(this.colours, 3, true);
    this.colour.setUsage(DynamicDrawUsage);
    this.uniforms = {
      eye: { value: new Vector3() },
      size: { value: new Vector2(1, 1) },
      radius: { value: CORE_OF_SPACING * leds.spacing_mm },
      scale: { value: 1 },
      least: { value: 1 },
      most: { value: 10 },
      dim: { value: 1 },
    };
    this.addOutline(look, low);
    this.addLeds(floatsOf(leds.facing), leds.count);
    const options = { type: HalfFloatType, depthBuffer: false };
    this.sharp = new WebGLRenderTarget(1, 1, { ...options, minFilter: NearestFilter, magFilter: NearestFilter });
    this.soft = new WebGLRenderTarget(1, 1, options);
    this.addScreen();
  }

  /** The light of every spot, as bytes. */
  light(rgb: Uint8Array): void {
    const { colours, spot } = this;
    for (let i = 0; i < spot.length; i++) {
      const row = spot[i]!;
      const from = 3 * row;
      const at = 3 * i;
      colours[at] = row === SKIPPED ? 0 : rgb[from]!;
      colours[at + 1] = row === SKIPPED ? 0 : rgb[from + 1]!;
      colours[at + 2] = row === SKIPPED ? 0 : rgb[from + 2]!;
    }
    this.colour.needsUpdate = true;
  }

  resize(width: number, height: number, ratio: number): void {
    this.width = Math.max(Math.round(width * ratio), 1);
    this.height = Math.max(Math.round(height * ratio), 1);
    this.renderer.setSize(this.width, this.height, false);
    this.sharp.setSize(this.width, this.height);
  }

  draw(): void {
    const { renderer, orbit, uniforms } = this;
    orbit.place(this.width, this.height);
    const { camera } = orbit;
    (uniforms.eye.value as Vector3).copy(camera.position);
    const half = Math.tan((camera.fov * Math.PI) / 360);
    uniforms.dim.value = this.dim;
    this.aim(this.width, this.height, half);
    renderer.setRenderTarget(this.sharp);
    renderer.clear();
    renderer.render(this.thing, camera);
    renderer.render(this.cores, camera);
    const coarse = this.coarse(half);
    const [wide, high] = [Math.ceil(this.width / coarse), Math.ceil(this.height / coarse)];
    if (this.soft.width !== wide || this.soft.height !== high) this.soft.setSize(wide, high);
    this.aim(this.width / coarse, this.height / coarse, half);
    renderer.setRenderTarget(this.soft);
    renderer.clear();
    renderer.render(this.halos, camera);
    renderer.setRenderTarget(null);
    renderer.render(this.screen, camera);
  }

  /** Let go of the picture: browsers give a page so many and no more. */
  dispose(): void {
    this.renderer.dispose();
    this.renderer.forceContextLoss();
  }

  /** Where a point is in the picture, in shares from the left and the top; none behind the eye. */
  project(index: number): [number, number] | undefined {
    return this.projectPoint(this.position.subarray(3 * index, 3 * index + 3));
  }

  projectPoint(point: ArrayLike<number>): [number, number] | undefined {
    const seen = new Vector3(point[0], point[1], point[2]).project(this.orbit.camera);
    return seen.z > 1 ? undefined : [0.5 + seen.x / 2, 0.5 - seen.y / 2];
  }

  /** The LED nearest to a place in the picture, within so many shares of its height. */
  pick(x: number, y: number, within: number): number | undefined {
    const aspect = this.width / this.height;
    let best: number | undefined;
    let nearest = within;
    for (let i = 0; i < this.spot.length; i++) {
      const at = this.project(i);
      if (!at || this.spot[i] === SKIPPED) continue;
      const distance = Math.hypot((at[0] - x) * aspect, at[1] - y);
      if (distance < nearest) [best, nearest] = [i, distance];
    }
    return best;
  }

  /** How much coarser the grid of halos is: they are seven cores wide. */
  private coarse(half: number): number {
    const distance = this.orbit.camera.position.distanceTo(this.orbit.target);
    const core = ((this.uniforms.radius.value as number) * this.height) / (2 * half * Math.max(distance, 1));
    const most = Math.max(Math.min(this.width, this.height) / 60, LEAST_PX);
    return Math.min(Math.max(Math.round(2 * Math.min(core, most)), LEAST_SOFT), MOST_SOFT);
  }

  private aim(width: number, height: number, half: number): void {
    const { uniforms } = this;
    (uniforms.size.value as Vector2).set(width, height);
    uniforms.scale.value = height / (2 * half);
    uniforms.least.value = (LEAST_PX * height) / this.height;
    uniforms.most.value = Math.max(Math.min(width, height) / 60, uniforms.least.value as number);
  }

  private addOutline(look: Shown, low: number): void {
    for (const line of look.leds.outline) {
      if (line.length < 2) continue;
      const [first, last] = [line[0]!, line.at(-1)!];
      if (first[0] === last[0] && first[1] === last[1]) {
        const shape = new Shape(line.map(([x, y]) => new Vector2(x, y)));
        const fill = new MeshBasicMaterial({ color: "#10131a", side: DoubleSide, depthTest: false });
        const body = new Mesh(new ShapeGeometry(shape), fill);
        body.position.z = low;
        this.thing.add(body);
      }
      const points = line.map(([x, y]) => new Vector3(x, y, low));
      const ink = new LineBasicMaterial({ color: "#4a5368", depthTest: false });
      this.thing.add(new Line(new BufferGeometry().setFromPoints(points), ink));
    }
  }

  private addLeds(facing: Float32Array, count: number): void {
    const geometry = new InstancedBufferGeometry();
    geometry.instanceCount = count;
    geometry.setAttribute("corner", new BufferAttribute(new Float32Array([-1, -1, 1, -1, 1, 1, -1, 1]), 2));
    geometry.setIndex([0, 1, 2, 0, 2, 3]);
    geometry.setAttribute("place", new InstancedBufferAttribute(this.position, 3));
    geometry.setAttribute("facing", new InstancedBufferAttribute(facing, 3));
    geometry.setAttribute("colour", this.colour);
    const add = (scene: Scene, vertex: string, fragment: string, isAdded: boolean): void => {
      const material = new RawShaderMaterial({
        glslVersion: GLSL3,
        vertexShader: vertex,
        fragmentShader: fragment,
        uniforms: this.uniforms,
        transparent: true,
        depthTest: false,
        depthWrite: false,
        blending: isAdded ? AdditiveBlending : NormalBlending,
      });
      const mesh = new Mesh(geometry, material);
      mesh.frustumCulled = false;
      mesh.renderOrder = 10;
      scene.add(mesh);
    };
    add(this.thing, shaders.OFF_VERTEX, shaders.OFF_FRAGMENT, false);
    add(this.cores, shaders.CORE_VERTEX, shaders.CORE_FRAGMENT, true);
    add(this.halos, shaders.HALO_VERTEX, shaders.HALO_FRAGMENT, true);
  }

  private addScreen(): void {
    const geometry = new BufferGeometry();
    geometry.setAttribute("position", new BufferAttribute(new Float32Array([-1, -1, 0, 3, -1, 0, -1, 3, 0]), 3));
    const uniforms: Record<string, IUniform<Texture>> = {
      sharp: { value: this.sharp.texture },
      soft: { value: this.soft.texture },
    };
    const material = new RawShaderMaterial({
      glslVersion: GLSL3,
      vertexShader: shaders.SCREEN_VERTEX,
      fragmentShader: shaders.SCREEN_FRAGMENT,
      uniforms,
      depthTest: false,
    });
    const mesh = new Mesh(geometry, material);
    mesh.frustumCulled = false;
    this.screen.add(mesh);
  }
}

function lowest(position: Float32Array): number {
  let low = Infinity;
  for (let i = 2; i < position.length; i += 3) low = Math.min(low, position[i]!);
  return Number.isFinite(low) ? low : 0;
}
