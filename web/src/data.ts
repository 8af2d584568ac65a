/* Made from data.schema.json by `npm run types`: change src/fendra/page/data.py instead. */

/**
 * All that a page shows. version: of the Fendra that wrote it.
 */
export interface PageData {
  version: string;
  title: string;
  looks: Look[];
}
/**
 * A design that runs. module: WebAssembly, base64. unit_mm: its unit of length.
 */
export interface Look {
  label: string;
  name: string;
  about: string;
  rate: number;
  unit_mm: number;
  view: string;
  module: string;
  memory: Memory;
  leds: Leds;
  spots: Spots;
  parts: string[];
  lines: Line[];
  signals: Signal[];
  layers: Layer[];
  scenes: Scene[];
  supplies: Supply[];
  tape: TapeData | null;
}
/**
 * What stands where in the module's memory. state_end: all that is remembered stands before.
 */
export interface Memory {
  leds: number;
  state_end: number;
  signals: {
    [k: string]: number;
  };
  limits: {
    [k: string]: number;
  };
  canvas: number;
  plane: number;
  rgb: number;
  seen: number;
  master: Reading;
  scenes: Reading[];
  layers: Painted[];
  told: {
    [k: string]: Reading;
  };
  draws: {
    [k: string]: number;
  };
}
/**
 * A number of the newest frame: where it stands in the module's memory, or what it always is.
 *
 * kind: f32, u32 or truth, which is 0 or 1.
 */
export interface Reading {
  at?: number | null;
  kind?: "f32" | "u32" | "truth";
  value?: number | null;
}
/**
 * A layer in the module. left_out: a word that is not 0 while it is left out. tells: what is
 * told of it at one LED, and where it stands after `tell<number>` has been called.
 */
export interface Painted {
  number: number;
  on: Reading;
  left_out: number;
  tells: {
    [k: string]: Reading;
  };
}
/**
 * Every LED: spot is its row of the layout as uint32, or 0xffffffff where it is skipped;
 * position in mm and facing are float32, three each.
 */
export interface Leds {
  count: number;
  spot: string;
  position: string;
  facing: string;
  outline: number[][][];
  spacing_mm: number;
}
/**
 * Every spot, a row of the layout: line, part, address and index in the part, uint32.
 */
export interface Spots {
  count: number;
  line: string;
  part: string;
  address: string;
  index: string;
  names: {
    [k: string]: string;
  };
}
/**
 * A data line, and the letters of its channels in the order of the wire.
 */
export interface Line {
  name: string;
  order: string;
}
/**
 * A signal, and the numbers that feed it. low, high: of its raw values. step: between them.
 *
 * rest: where its control stands before there is news. of: the expression that it is computed by;
 * then nothing feeds it.
 */
export interface Signal {
  name: string;
  kind: string;
  unit: string;
  about: string;
  of: string;
  parts: string[];
  low: number;
  high: number;
  step: number;
  rest: number;
  words: Word[];
}
/**
 * A word of a choice or text, and its number.
 */
export interface Word {
  word: string;
  number: number;
}
/**
 * A layer as it is written. runs: its spots, as [first, end, place in the layer] each.
 */
export interface Layer {
  number: number;
  name: string;
  effect: string;
  on: string;
  blend: string;
  why: string;
  scenes: string[];
  written: {
    [k: string]: string;
  };
  runs: number[][];
}
/**
 * A scene, and when it is chosen.
 */
export interface Scene {
  name: string;
  why: string;
}
/**
 * idle_a: what dark LEDs draw. limit_a: what the limiter keeps, else what it is rated for.
 */
export interface Supply {
  name: string;
  idle_a: number;
  limit_a: number | null;
  has_limiter: boolean;
}
/**
 * A tape, frame by frame. clock_ms: of each frame, uint32.
 */
export interface TapeData {
  name: string;
  frames: number;
  clock_ms: string;
  courses: {
    [k: string]: Course;
  };
}
/**
 * What a tape says of one number. news: a bit for each frame, the lowest first; values: of
 * each frame with news, float32.
 */
export interface Course {
  news: string;
  values: string;
}
