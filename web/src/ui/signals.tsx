/** Signals: a control of each, by its kind; what a hand does, the tape does no more. */

import { useEffect, useRef } from "preact/hooks";
import type { Signal } from "../data";
import type { Light } from "../module";
import type { Player } from "../player";
import { hexOf, numberText } from "../words";
import { MOMENTS } from "../run";
import type { Pads } from "./pads";

const SHOWN_S = 6;
const WIDTH = 96;
const HEIGHT = 22;

/** The newest values of each signal, for the small traces. */
export class Traces {
  private readonly known = new Map<string, number[]>();
  private readonly size: number;

  constructor(rate: number) {
    this.size = Math.max(Math.round(SHOWN_S * rate), 2);
  }

  push(name: string, value: number): void {
    const values = this.known.get(name) ?? [];
    values.push(value);
    if (values.length > this.size) values.shift();
    this.known.set(name, values);
  }

  of(name: string): readonly number[] {
    return this.known.get(name) ?? [];
  }

  get room(): number {
    return this.size;
  }
}

interface Props {
  player: Player;
  traces: Traces;
  pads: Pads;
}

export function Signals({ player, traces, pads }: Props) {
  const { signals } = player.first.look;
  if (signals.length === 0) return <p class="faint">This design has no signals.</p>;
  return (
    <ul class="signals" aria-label="Signals">
      {signals.map((signal) => (
        <Row key={signal.name} signal={signal} player={player} traces={traces} pads={pads} />
      ))}
    </ul>
  );
}

function Row({ signal, player, traces, pads }: Props & { signal: Signal }) {
  const { module, tape, frame } = player.first;
  const deed = player.deedOf(signal.name);
  const isLost = !MOMENTS.has(signal.kind) && module.told(`why:lost:${signal.name}`) === 1;
  const isTaped = signal.parts.some((part) => tape?.has(part));
  const raw = deed?.what === "set" ? deed.values[0] : tape?.last(signal.parts[0] ?? "", frame);
  const leads = signal.of ? "computed" : deed?.what === "lost" ? "lost by hand" : deed ? "by hand" : isTaped ? "tape" : "";
  return (
    <li class={deed ? "signal held" : "signal"}>
      <div class="head">
        <span class="name" title={signal.about || undefined}>{signal.name}</span>
        <Value signal={signal} player={player} isLost={isLost} />
        <Trace values={traces.of(signal.name)} room={traces.room} signal={signal} label={signal.name} />
      </div>
      {signal.of ? (
        <p class="faint written">{signal.of}</p>
      ) : (
        <div class="control">
          <Control signal={signal} value={raw ?? signal.rest} values={valuesOf(signal, player)} pads={pads}
            set={(...values) => player.do(signal.name, "set", values)} />
          <button
            class={deed?.what === "lost" ? "small on" : "small"}
            aria-pressed={deed?.what === "lost"}
            aria-label={`${signal.name}: lost`}
            title="treat it as lost"
            onClick={() => player.do(signal.name, deed?.what === "lost" ? "free" : "lost")}
          >
            lost
          </button>
        </div>
      )}
      {!signal.of && (
        <p class="faint foot">
          <span>{raw === undefined ? "no value yet" : signal.kind === "number" ? `raw ${numberText(raw)}` : ""}</span>
          <span>
            {leads}
            {deed && (
              <button class="link" onClick={() => player.do(signal.name, "free")}>
                {isTaped ? "back to the tape" : "release"}
              </button>
            )}
          </span>
        </p>
      )}
    </li>
  );
}

/** The numbers that come in for a signal just now. */
function valuesOf(signal: Signal, player: Player): number[] {
  const { tape, frame } = player.first;
  const deed = player.deedOf(signal.name);
  return signal.parts.map((part, i) => deed?.values[i] ?? tape?.last(part, frame) ?? signal.rest);
}

function Value({ signal, player, isLost }: { signal: Signal; player: Player; isLost: boolean }) {
  const { module } = player.first;
  const told = `why:signal:${signal.name}`;
  return <Reading signal={signal} value={module.told(told)} light={module.toldLight(told)} isLost={isLost} />;
}

/** What a signal is, as layers read it. */
export function Reading({ signal, value, light, isLost }: {
  signal: Signal; value: number | undefined; light: Light | undefined; isLost: boolean;
}) {
  let text: string;
  if (light) text = hexOf(light);
  else if (value === undefined) text = "";
  else if (signal.kind === "switch" || signal.kind === "event") text = value ? "on" : "off";
  else if (signal.words.length > 0) {
    text = signal.words.find((word) => word.number === Math.round(value))?.word ?? (value > -1e6 ? numberText(value) : "none");
  } else text = `${numberText(value)}${signal.unit ? ` ${signal.unit}` : ""}`;
  return (
    <span class={isLost ? "value lost" : "value"}>
      {light && <i class="chip" style={{ background: text }} />}
      {text}
      {isLost ? " lost" : ""}
    </span>
  );
}

interface ControlProps {
  signal: Signal;
  value: number;
  values: readonly number[];
  /** Where a touched LED can make an event. */
  pads?: Pads;
  set: (...values: number[]) => void;
}

/** The control of a signal, by its kind. */
export function Control({ signal, value, values, pads, set }: ControlProps) {
  const label = signal.name;
  switch (signal.kind) {
    case "switch":
      return (
        <button class={value > 0.5 ? "wide on" : "wide"} aria-pressed={value > 0.5} aria-label={label}
          onClick={() => set(value > 0.5 ? 0 : 1)}>
          {value > 0.5 ? "on" : "off"}
        </button>
      );
    case "choice":
      return (
        <select aria-label={label} value={String(value)} onChange={(event) => set(Number(event.currentTarget.value))}>
          {signal.words.map((word) => (
            <option key={word.word} value={String(word.number)}>{word.word}</option>
          ))}
        </select>
      );
    case "text":
      return (
        <span class="words">
          {signal.words.map((word) => (
            <button key={word.word} class="small" onClick={() => set(word.number)}>{word.word}</button>
          ))}
        </span>
      );
    case "colour":
      return (
        <input type="color" aria-label={label} value={`#${Math.round(value).toString(16).padStart(6, "0")}`}
          onInput={(event) => set(parseInt(event.currentTarget.value.slice(1), 16))} />
      );
    case "event":
      return (
        <span class="words">
          <button class="wide" onClick={() => set(1, 0, 0, 0)}>now</button>
          {pads && (
            <button class={pads.event === signal.name ? "small on" : "small"} aria-pressed={pads.event === signal.name}
              title="then touch an LED: it happens there"
              onClick={() => pads.choose(pads.event === signal.name ? "" : signal.name)}>
              at an LED
            </button>
          )}
        </span>
      );
    case "vector":
      return <Bars signal={signal} values={values} set={set} />;
    case "picture":
      return <span class="faint">a live picture: black here</span>;
    default:
      return (
        <input type="range" aria-label={`${label}${signal.unit ? `, ${signal.unit}` : ""}`} min={signal.low} max={signal.high}
          step={signal.step} value={value} onInput={(event) => set(Number(event.currentTarget.value))}
          title={`${numberText(signal.low)} to ${numberText(signal.high)} ${signal.unit}`} />
      );
  }
}

/** A vector: a bar for each number, drawn by a pointer or moved by keys. */
function Bars({ signal, values, set }: Pick<ControlProps, "signal" | "values" | "set">) {
  const span = signal.high - signal.low || 1;
  const put = (place: number, share: number): void => {
    const held = Math.min(Math.max(share, 0), 1);
    set(...values.map((value, i) => (i === place ? signal.low + held * span : value)));
  };
  const draw = (event: PointerEvent & { currentTarget: HTMLElement }): void => {
    if (event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    const place = Math.floor(((event.clientX - box.left) / box.width) * values.length);
    if (place >= 0 && place < values.length) put(place, 1 - (event.clientY - box.top) / box.height);
  };
  return (
    <div class="bars" onPointerDown={draw} onPointerMove={draw}>
      {values.map((value, i) => (
        <input key={i} type="range" aria-label={`${signal.name}[${i}]`} min={signal.low} max={signal.high}
          step={signal.step} value={value} style={{ "--share": `${(100 * (value - signal.low)) / span}%` }}
          onInput={(event) => put(i, (Number(event.currentTarget.value) - signal.low) / span)} />
      ))}
    </div>
  );
}

export function Trace({ values, room, signal, label }: { values: readonly number[]; room: number; signal: Signal; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const pen = canvas.current?.getContext("2d");
    if (!pen) return;
    pen.clearRect(0, 0, 2 * WIDTH, 2 * HEIGHT);
    const isNumber = signal.kind === "number";
    const low = isNumber ? Math.min(signal.low, ...values) : 0;
    const high = isNumber ? Math.max(signal.high, ...values) : 1;
    pen.strokeStyle = "#8d97a8";
    pen.lineWidth = 2;
    pen.beginPath();
    values.forEach((value, i) => {
      const x = (2 * WIDTH * (i + room - values.length)) / room;
      const y = 2 * HEIGHT - 3 - ((2 * HEIGHT - 6) * (value - low)) / (high - low || 1);
      if (i === 0) pen.moveTo(x, y);
      else pen.lineTo(x, y);
    });
    pen.stroke();
  });
  return <canvas ref={canvas} class="trace" width={2 * WIDTH} height={2 * HEIGHT} role="img" aria-label={`${label}, the last ${SHOWN_S} seconds`} />;
}
