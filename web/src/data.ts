/* Made from data.schema.json by `npm run types`: change src/fendra/page/data.py instead. */

/**
 * All data for pages, of either kind.
 */
export interface Everything {
  page: PageData;
  hello: Hello;
  live: LiveLook;
  state: State;
  sheet: Sheet;
}
/**
 * All that a page shows. version: of the Fendra that wrote it.
 */
export interface PageData {
  version: string;
  title: string;
  looks: Look[];
}
/**
 * A design that runs. module: WebAssembly, base64.
 */
export interface Look {
  label: string;
  name: string;
  about: string;
  rate: number;
  unit_mm: number;
  view: string;
  leds: Leds;
  spots: Spots;
  parts: string[];
  lines: Line[];
  signals: Signal[];
  scenes: Scene[];
  module: string;
  memory: Memory;
  layers: Layer[];
  supplies: Supply[];
  tape: TapeData | null;
}
/**
 * Every LED: spot is its row of the layout as uint32, or 0xffffffff if it is skipped; position
 * in mm and facing are float32, three each.
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
 * rest: the position of its control before the first value. of: the expression that it is computed
 * by; then nothing feeds it.
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
 * A scene, and when it is chosen.
 */
export interface Scene {
  name: string;
  why: string;
}
/**
 * The addresses in the module's memory. state_end: the end of everything that is kept.
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
 * A number of the newest frame: its place in the module's memory, or its constant value.
 *
 * kind: f32, u32 or truth, which is 0 or 1.
 */
export interface Reading {
  at?: number | null;
  kind?: "f32" | "u32" | "truth";
  value?: number | null;
}
/**
 * A layer in the module. left_out: a word that is not 0 while the layer is left out. tells: the
 * values at one LED, and where they are after a call of `tell<number>`.
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
 * idle_a: what dark LEDs draw. limit_a: the limiter's budget, else the rating.
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
 * A tape's values of one number. news: a bit for each frame, the lowest first; values: of
 * each frame with news, float32.
 */
export interface Course {
  news: string;
  values: string;
}
/**
 * The first message to a page: what it may do, and which Fendra serves it.
 */
export interface Hello {
  kind: "hello";
  version: string;
  right: number;
  has_desk: boolean;
  is_bench: boolean;
}
/**
 * A design that runs elsewhere: its frames come one after the other. number: of the look.
 */
export interface LiveLook {
  label: string;
  name: string;
  about: string;
  rate: number;
  unit_mm: number;
  view: string;
  leds: Leds;
  spots: Spots;
  parts: string[];
  lines: Line[];
  signals: Signal[];
  scenes: Scene[];
  kind: "look";
  number: number;
  panel: PanelRow[];
}
/**
 * A control of the panel: a signal, or what else hands set.
 */
export interface PanelRow {
  signal: string | null;
  control: ("level" | "on" | "scene" | "cues") | null;
  name: string;
}
/**
 * The state of a run. file: changes whenever the design's file does.
 */
export interface State {
  kind: "state";
  design: string;
  at_s: number;
  running_s: number;
  engine: string;
  rate: Pace;
  on: boolean;
  level: number;
  scene: string | null;
  scene_by_hand: string | null;
  scenes: string[];
  signals: LiveSignal[];
  layers: LiveLayer[];
  sources: LiveSource[];
  outputs: LiveOutput[];
  supplies: LiveSupply[];
  cues: string[];
  pages: number;
  file: string;
  bench: Bench | null;
}
/**
 * How even a run is. late_ms, late_p99_ms: how late frames began lately, the middle one and one
 * in a hundred. left_out: frames that this computer was too late for. loop, page: the share of one
 * processor that each takes.
 */
export interface Pace {
  wanted: number;
  now: number;
  late_ms: number;
  late_p99_ms: number;
  left_out: number;
  made: number;
  loop: number;
  page: number;
}
/**
 * A signal. value: as layers read it. raw: the newest value from a source, age_s ago. hand:
 * whether a hand has set it, or holds back its new values; held: the numbers that it then has.
 */
export interface LiveSignal {
  name: string;
  value: number | boolean | number[] | null;
  raw: unknown;
  lost: boolean;
  age_s: number | null;
  rate_hz: number;
  source: string;
  refused: number;
  problem: string;
  computed: boolean;
  hand: ("set" | "lost") | null;
  held: number[] | null;
}
/**
 * A layer, whether it is on, and the presets that it may have.
 */
export interface LiveLayer {
  name: string;
  on: boolean;
  preset: string | null;
  presets: string[];
}
/**
 * A source. problem: why it fails, since_s seconds ago; None while it works.
 */
export interface LiveSource {
  name: string;
  what: string;
  refused: number;
  skipped: number;
  ended: boolean;
  problem: string | null;
  since_s: number | null;
}
/**
 * An output. replaced: frames that a newer one took the place of. busy_ms: for one frame.
 */
export interface LiveOutput {
  name: string;
  what: string;
  sent: number;
  replaced: number;
  busy_ms: number;
  problem: string | null;
  since_s: number | null;
}
/**
 * A supply. let_through: of the light by its limiter, if it has one: 0 to 1.
 */
export interface LiveSupply {
  name: string;
  amps: number;
  limit_a: number | null;
  let_through: number | null;
}
/**
 * The bench: which pattern is shown, what should be seen, and what followed from what was.
 */
export interface Bench {
  patterns: string[];
  pattern: string;
  line: string | null;
  part: string | null;
  lines: string[];
  parts: string[];
  words: string;
  step: number;
  steps: number;
  level: number;
  amps: string[];
  asks: Ask[];
  verdict: string;
  is_explained: boolean | null;
  ways: string[][];
  hint: string;
  problem: string;
}
/**
 * A question of the bench. key: what its answer is called; empty if it has no name.
 */
export interface Ask {
  key: string;
  text: string;
  options: string[];
}
/**
 * A design's file, as the editor has it. version: changes with every letter of the text.
 */
export interface Sheet {
  file: string;
  text: string;
  version: string;
  findings: FoundThing[];
  can_undo: boolean;
  can_redo: boolean;
  parts: PlacedPart[];
  groups: string[];
  effects: string[];
  layers: SheetLayer[];
}
/**
 * A finding, and the place that it is about.
 */
export interface FoundThing {
  severity: string;
  code: string;
  message: string;
  remedy: string;
  line: number | null;
  path: (string | number)[];
}
/**
 * A part on the map: what an editor of places needs. path: of its table in the design. middle:
 * of its LEDs, x, y and z in the design's unit. spots: its rows of the layout, first and end.
 * is_movable: it stands on its own, and can be dragged. written: its keys of places and angles.
 */
export interface PlacedPart {
  name: string;
  shape: string;
  path: (string | number)[];
  middle: number[];
  spots: number[];
  is_movable: boolean;
  written: {
    [k: string]: unknown;
  };
}
/**
 * A layer as it is written. colours: its keys that hold a colour, as #rrggbb; numbers: those
 * that hold a number.
 */
export interface SheetLayer {
  name: string;
  path: (string | number)[];
  effect: string;
  on: string;
  colours: {
    [k: string]: string;
  };
  numbers: {
    [k: string]: number;
  };
}
