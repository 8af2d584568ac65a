/** One look in space: the picture, what is written over it, and how one moves it. */

import { useEffect, useRef, useState } from "preact/hooks";
import { keep } from "../player";
import { Labels, type Wanted } from "../space/labels";
import { Space } from "../space/space";
import type { Shown, Spots } from "../spots";

const CLICK_PX = 6;
const PICK = 0.05;

export interface ViewState extends Wanted {
  view: string;
}

/** What makes the frames that are shown: a module in the page, or a run elsewhere. */
export interface Picture {
  look: Shown;
  spots: Spots;
  /** How many frames were made in all. */
  made: number;
  seen: () => Uint8Array;
}

/** Whether frames come, how long it takes to draw them, and whether flashes are shown. */
export interface Showing {
  isPlaying: boolean;
  flashes: "unasked" | "asking" | "shown" | "dimmed";
  timing: { draw: number[] };
}

interface Props {
  run: Picture;
  player: Showing;
  shown: ViewState;
  label: string;
  /** Called with the space once it is there, and with nothing where WebGL is missing. */
  ready: (space: Space | undefined) => void;
  moved: () => void;
  touched: (led: number | undefined, space: Space) => void;
}

export function View({ run, player, shown, label, ready, moved, touched }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const picture = useRef<HTMLCanvasElement>(null);
  const words = useRef<HTMLCanvasElement>(null);
  const latest = useRef(shown);
  latest.current = shown;
  const [failure, setFailure] = useState("");
  const space = useRef<Space>(undefined);

  useEffect(() => {
    const [canvas, over, holder] = [picture.current!, words.current!, frame.current!];
    let made: Space;
    try {
      made = new Space(canvas, run.look);
    } catch (error) {
      setFailure(`This browser cannot draw in space (${error instanceof Error ? error.message : "no WebGL 2"}). Signals, layers and the film strip work without it.`);
      ready(undefined);
      return undefined;
    }
    space.current = made;
    made.orbit.look(latest.current.view);
    const labels = new Labels(over, run.look, run.spots);
    const full = Math.min(window.devicePixelRatio || 1, 2);
    const pace = new Pace();
    let [width, height] = [1, 1];
    const measure = (): void => {
      [width, height] = [holder.clientWidth, holder.clientHeight];
      made.resize(width, height, full * pace.share);
    };
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(holder);
    let [next, drawn, written] = [0, "", ""];
    const draw = (): void => {
      next = requestAnimationFrame(draw);
      const begin = performance.now();
      if (pace.isSlow(begin, player.isPlaying)) measure();
      made.dim = player.flashes === "asking" ? 0 : player.flashes === "dimmed" ? 0.12 : 1;
      const place = [made.orbit.state, width, height, pace.share, JSON.stringify(latest.current)].join();
      const state = [run.made, made.dim, place].join();
      if (state === drawn) return;
      drawn = state;
      made.light(run.seen());
      made.draw();
      if (place !== written) labels.draw(made, latest.current, width, height, full);
      written = place;
      keep(player.timing.draw, performance.now() - begin);
    };
    draw();
    ready(made);
    return () => {
      cancelAnimationFrame(next);
      watcher.disconnect();
      made.dispose();
    };
  }, [run]);

  useEffect(() => {
    const holder = frame.current!;
    return steer(holder, () => space.current, moved, (x, y) => {
      const made = space.current;
      if (!made) return;
      const box = holder.getBoundingClientRect();
      touched(made.pick((x - box.left) / box.width, (y - box.top) / box.height, PICK), made);
    });
  }, []);

  return (
    <div class="view" ref={frame} tabIndex={0} role="application"
      aria-label={`${label || run.look.name} in space: ${run.look.leds.count} LEDs. Arrow keys turn it, plus and minus zoom, 1 to 6 choose a side.`}
      onKeyDown={(event) => {
        const orbit = space.current?.orbit;
        const turns: Record<string, [number, number]> = { ArrowLeft: [5, 0], ArrowRight: [-5, 0], ArrowUp: [0, 5], ArrowDown: [0, -5] };
        const turn = turns[event.key];
        if (!orbit) return;
        if (turn) orbit.turn(...turn);
        else if (event.key === "+" || event.key === "=") orbit.nearer(1.15);
        else if (event.key === "-") orbit.nearer(1 / 1.15);
        else return;
        event.preventDefault();
        moved();
      }}>
      <canvas ref={picture} aria-hidden="true" />
      <canvas ref={words} class="over" aria-hidden="true" />
      {label && <span class="label">{label}</span>}
      {failure && <p class="sentence">{failure}</p>}
    </div>
  );
}

const SLOW_MS = 45;
const LEAST_SHARE = 0.45;
/** So many pictures are looked at, or fewer where they take long. */
const [LEAST_LOOKED_AT, LOOKED_AT, AT_ONCE_MS] = [4, 15, 700];

/** Where pictures come too slowly, fewer pixels are drawn. */
class Pace {
  share = 1;
  private readonly took: number[] = [];
  private last = 0;

  /** A picture is due; whether the ones before it took so long that the next should be coarser. */
  isSlow(now: number, isPlaying: boolean): boolean {
    if (isPlaying && this.last > 0) this.took.push(now - this.last);
    this.last = isPlaying ? now : 0;
    const all = this.took.reduce((sum, each) => sum + each, 0);
    if (this.took.length < LEAST_LOOKED_AT || (this.took.length < LOOKED_AT && all < AT_ONCE_MS)) return false;
    const middle = this.took.toSorted((a, b) => a - b)[this.took.length >> 1]!;
    this.took.length = 0;
    if (middle < SLOW_MS || this.share <= LEAST_SHARE) return false;
    this.share = Math.max(this.share * 0.75, LEAST_SHARE);
    return true;
  }
}

/** Mouse, touch and wheel: drag turns, two fingers zoom and move, a click touches. */
function steer(
  holder: HTMLElement, space: () => Space | undefined, moved: () => void, click: (x: number, y: number) => void,
): () => void {
  const down = new Map<number, [number, number]>();
  let start: [number, number] | undefined;
  const begin = (event: PointerEvent): void => {
    holder.setPointerCapture(event.pointerId);
    down.set(event.pointerId, [event.clientX, event.clientY]);
    start = down.size === 1 ? [event.clientX, event.clientY] : undefined;
  };
  const move = (event: PointerEvent): void => {
    const before = down.get(event.pointerId);
    const orbit = space()?.orbit;
    if (!before || !orbit) return;
    const [dx, dy] = [event.clientX - before[0], event.clientY - before[1]];
    const others = [...down.entries()].filter(([id]) => id !== event.pointerId).map(([, place]) => place);
    const other = others[0];
    const height = holder.clientHeight || 1;
    if (other) {
      const far = (place: [number, number]): number => Math.hypot(place[0] - other[0], place[1] - other[1]);
      const now: [number, number] = [event.clientX, event.clientY];
      orbit.nearer(far(now) / Math.max(far(before), 1));
      orbit.move(dx / 2 / height, -dy / 2 / height);
    } else if (event.shiftKey || event.buttons === 2) orbit.move(dx / height, -dy / height);
    else if (!start || Math.hypot(event.clientX - start[0], event.clientY - start[1]) > CLICK_PX) {
      start = undefined;
      orbit.turn((dx * 180) / height, (dy * 180) / height);
    }
    down.set(event.pointerId, [event.clientX, event.clientY]);
  };
  const end = (event: PointerEvent): void => {
    down.delete(event.pointerId);
    if (start) click(event.clientX, event.clientY);
    start = undefined;
    moved();
  };
  const wheel = (event: WheelEvent): void => {
    event.preventDefault();
    space()?.orbit.nearer(Math.exp(-event.deltaY / 500));
    moved();
  };
  const menu = (event: Event): void => event.preventDefault();
  const pairs: [string, EventListener][] = [
    ["pointerdown", begin as EventListener],
    ["pointermove", move as EventListener],
    ["pointerup", end as EventListener],
    ["contextmenu", menu],
  ];
  for (const [name, listener] of pairs) holder.addEventListener(name, listener);
  holder.addEventListener("wheel", wheel, { passive: false });
  return () => {
    for (const [name, listener] of pairs) holder.removeEventListener(name, listener);
    holder.removeEventListener("wheel", wheel);
  };
}
