/** Time: play and pause, the tape and the film strip, to drag along. */

import { useEffect, useRef } from "preact/hooks";
import uPlot from "uplot";
import "uplot/dist/uPlot.min.css";
import { LINES } from "../space/labels";
import type { Player } from "../player";
import type { Run } from "../run";
import { timeText } from "../words";

const STRIP_PX = 1200;
const MOST_ROWS = 240;
const MOST_TRACES = 6;
const POINTS = 900;
const SPEEDS = [0.1, 0.25, 0.5, 1, 2, 4];

/** The film strip: a column for each moment, painted as frames are made. */
export class Strip {
  readonly canvas = document.createElement("canvas");
  private readonly rows: number;
  private readonly image: ImageData;
  private end = 1;
  /** Columns that are not on the canvas yet. */
  private first = STRIP_PX;
  private last = 0;

  constructor(private readonly player: Player) {
    this.rows = Math.max(Math.min(player.first.look.spots.count, MOST_ROWS), 1);
    this.canvas.width = STRIP_PX;
    this.canvas.height = this.rows;
    this.image = new ImageData(STRIP_PX, this.rows);
    this.end = player.end;
    player.onFrame((run) => run === player.first && this.paint(run));
  }

  /** Put what has come since the last time onto the canvas. */
  show(): void {
    if (this.last <= this.first) return;
    const width = this.last - this.first;
    this.canvas.getContext("2d")?.putImageData(this.image, 0, 0, this.first, 0, width, this.rows);
    [this.first, this.last] = [STRIP_PX, 0];
  }

  private paint(run: Run): void {
    if (this.player.end !== this.end) {
      this.image.data.fill(0);
      [this.first, this.last, this.end] = [0, STRIP_PX, this.player.end];
    }
    const seen = run.module.seen();
    const { count } = run.look.spots;
    const time = run.frame / run.look.rate;
    const first = Math.floor((time / this.end) * STRIP_PX);
    const last = Math.min(Math.max(Math.ceil(((time + 1 / run.look.rate) / this.end) * STRIP_PX), first + 1), STRIP_PX);
    const { data } = this.image;
    for (let row = 0; row < this.rows; row++) {
      const from = 3 * Math.floor((row * count) / this.rows);
      for (let x = first; x < last; x++) {
        const at = 4 * (row * STRIP_PX + x);
        for (let c = 0; c < 3; c++) data[at + c] = LOOKS[seen[from + c] ?? 0]!;
        data[at + 3] = 255;
      }
    }
    this.first = Math.min(this.first, first);
    this.last = Math.max(this.last, last);
  }
}

/** Linear bytes as they look, a little lifted as on the stills. */
const LOOKS = Array.from({ length: 256 }, (_, byte) => {
  const light = Math.min((byte / 255) * 1.6, 1);
  return Math.round(255 * (light <= 0.0031308 ? light * 12.92 : 1.055 * light ** (1 / 2.4) - 0.055));
});

export function Time({ player, strip }: { player: Player; strip: Strip }) {
  const holder = useRef<HTMLDivElement>(null);
  const plot = useRef<HTMLDivElement>(null);
  const { time, end, first } = player;
  useEffect(() => {
    holder.current?.prepend(strip.canvas);
  }, [strip]);
  useEffect(() => strip.show());
  useEffect(() => (plot.current ? drawTraces(player, plot.current) : undefined), [player]);
  const seek = (event: PointerEvent & { currentTarget: HTMLElement }): void => {
    if (event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    player.isPlaying = false;
    player.goTo(((event.clientX - box.left) / box.width) * end);
    player.tell();
  };
  return (
    <section class="time" aria-label="Time">
      <div class="buttons">
        <button class="play" onClick={() => player.play(!player.isPlaying)} aria-label={player.isPlaying ? "Pause" : "Play"}>
          {player.isPlaying ? "❚❚" : "▶"}
        </button>
        <button onClick={() => player.stepBy(-1)} aria-label="One frame back">‹</button>
        <button onClick={() => player.stepBy(1)} aria-label="One frame forward">›</button>
        <select aria-label="Speed" value={String(player.speed)} onChange={(event) => {
          player.speed = Number(event.currentTarget.value);
          player.tell();
        }}>
          {SPEEDS.map((speed) => <option key={speed} value={String(speed)}>{speed}×</option>)}
        </select>
        <output class="clock">{timeText(time)}</output>
        <span class="faint tape">{first.tape ? first.tape.name : "no tape: set signals by hand"}</span>
      </div>
      <div class="track" role="slider" tabIndex={0} aria-label="Moment" aria-valuemin={0} aria-valuemax={Number(end.toFixed(2))}
        aria-valuenow={Number(time.toFixed(2))} aria-valuetext={timeText(time)}
        onPointerDown={(event) => { event.currentTarget.setPointerCapture(event.pointerId); seek(event); }}
        onPointerMove={seek}
        onKeyDown={(event) => {
          const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: -50, PageUp: 50 };
          const by = steps[event.key];
          if (by === undefined) return;
          event.preventDefault();
          player.stepBy(by);
        }}>
        <div class="strip" ref={holder} />
        {first.tape && <div class="plot" ref={plot} aria-hidden="true" />}
        <i class="now" style={{ left: `${(100 * time) / end}%` }} />
      </div>
    </section>
  );
}

/** The tape's signals under the strip, each on its own scale. */
function drawTraces(player: Player, into: HTMLElement): (() => void) | undefined {
  const { look, tape } = player.first;
  if (!tape) return undefined;
  const drawn = look.signals
    .filter((signal) => signal.of === "" && ["number", "switch", "choice"].includes(signal.kind) && tape.has(signal.parts[0]!))
    .slice(0, MOST_TRACES);
  if (drawn.length === 0) return undefined;
  const count = Math.min(tape.frames, POINTS);
  const frames = Array.from({ length: count }, (_, i) => Math.round((i * (tape.frames - 1)) / Math.max(count - 1, 1)));
  const rows = drawn.map((signal, row) =>
    frames.map((frame) => {
      const value = tape.last(signal.parts[0]!, frame);
      const share = value === undefined ? null : (value - signal.low) / (signal.high - signal.low || 1);
      return share === null ? null : (drawn.length - 1 - row + 0.08 + 0.84 * Math.min(Math.max(share, 0), 1)) / drawn.length;
    }),
  );
  const height = into.clientHeight || 60;
  const chart = new uPlot(
    {
      width: into.clientWidth || 600,
      height,
      padding: [0, 0, 0, 0],
      legend: { show: false },
      cursor: { show: false },
      select: { show: false, left: 0, top: 0, width: 0, height: 0 },
      axes: [{ show: false }, { show: false }],
      scales: { x: { time: false, range: () => [0, tape.frames - 1] }, y: { range: () => [0, 1] } },
      series: [{}, ...drawn.map((_, i) => ({ stroke: LINES[i % LINES.length]!, width: 1.25, points: { show: false } }))],
    },
    [frames, ...rows],
    into,
  );
  const names = document.createElement("div");
  names.className = "traced";
  drawn.forEach((signal, i) => {
    const name = document.createElement("span");
    name.textContent = signal.name;
    name.style.color = LINES[i % LINES.length]!;
    name.style.top = `${(100 * i) / drawn.length}%`;
    names.append(name);
  });
  into.append(names);
  const watcher = new ResizeObserver(() => chart.setSize({ width: into.clientWidth, height: into.clientHeight || height }));
  watcher.observe(into);
  return () => {
    watcher.disconnect();
    chart.destroy();
    names.remove();
  };
}
