/** What hands hold: on and off, the master level, scenes, cues, and a signal's own row. */

import { useRef, useState } from "preact/hooks";
import type { LiveSignal, Signal, State } from "../data";
import { Control, Reading, Trace, Traces } from "../ui/signals";
import { MOMENTS } from "../run";
import { ageText, percent } from "../words";
import type { Link } from "./link";

/** So long a control shows what the hand on it wants, whatever the run has said by then. */
const HELD_MS = 400;

interface Held {
  link: Link;
  state: State;
}

export const mayLook = (link: Link): boolean => (link.hello?.right ?? 0) < 2;

const path = (...steps: string[]): string => `/api/${steps.map(encodeURIComponent).join("/")}`;

export function OnOff({ link, state }: Held) {
  return (
    <button class={state.on ? "wide power on" : "wide power"} aria-pressed={state.on} disabled={mayLook(link)}
      onClick={() => link.steer("PUT", path("on"), { value: !state.on })}>
      {state.on ? "Light is on" : "Light is off"}
    </button>
  );
}

/** A slider that follows the run, but not while a hand is on it. */
export function Level({ link, state, name = "Master level" }: Held & { name?: string }) {
  const own = useRef<number | undefined>(undefined);
  const value = own.current ?? state.level;
  return (
    <label class="level">
      <span>{name} <b>{percent(value)}</b></span>
      <input type="range" min={0} max={1} step={0.01} value={value} disabled={mayLook(link)} aria-label={name}
        onInput={(event) => {
          own.current = Number(event.currentTarget.value);
          link.steer("PUT", path("level"), { value: own.current });
          link.tell();
        }}
        onChange={() => {
          own.current = undefined;
        }} />
    </label>
  );
}

export function Scenes({ link, state }: Held) {
  if (state.scenes.length === 0) return null;
  return (
    <div class="scenes" role="group" aria-label="Scene">
      <button class={state.scene_by_hand === null ? "on" : ""} aria-pressed={state.scene_by_hand === null} disabled={mayLook(link)}
        title="by the scenes' conditions" onClick={() => link.steer("PUT", path("scene"), { value: null })}>
        automatic{state.scene_by_hand === null && state.scene ? `: ${state.scene}` : ""}
      </button>
      {state.scenes.map((name) => (
        <button key={name} class={state.scene_by_hand === name ? "on" : ""} aria-pressed={state.scene_by_hand === name}
          disabled={mayLook(link)} onClick={() => link.steer("PUT", path("scene"), { value: name })}>
          {name}
        </button>
      ))}
    </div>
  );
}

/** What was kept for later; and what hands hold now, to keep. */
export function Cues({ link, state, canKeep }: Held & { canKeep: boolean }) {
  const [name, setName] = useState("");
  const isHeld = state.signals.some((each) => each.hand !== null) || state.level < 1 || !state.on || state.scene_by_hand !== null;
  return (
    <div class="cues">
      <div class="words">
        {state.cues.map((cue) => (
          <span key={cue} class="cue">
            <button disabled={mayLook(link)} onClick={() => link.steer("POST", path("cues", cue))}>{cue}</button>
            {canKeep && (
              <button class="small" aria-label={`remove cue ${cue}`} title="remove" onClick={() => link.steer("DELETE", path("cues", cue))}>×</button>
            )}
          </span>
        ))}
        {state.cues.length === 0 && <span class="faint">No cues yet.</span>}
      </div>
      {canKeep && (
        <form class="keep" onSubmit={(event) => {
          event.preventDefault();
          if (!name.trim()) return;
          link.steer("PUT", path("cues", name.trim()));
          setName("");
        }}>
          <input aria-label="Name of a new cue" placeholder="save this look as…" value={name} maxLength={60}
            onInput={(event) => setName(event.currentTarget.value)} />
          <button type="submit" disabled={!name.trim()}>save</button>
        </form>
      )}
      <button class="wide" disabled={!isHeld || mayLook(link)} onClick={() => link.steer("POST", path("release"))}>Release everything</button>
    </div>
  );
}

/** A signal: what it is, who said so and when, and its control. */
export function SignalRow({ link, signal, now, traces, name, isBare }: {
  link: Link; signal: Signal; now: LiveSignal; traces?: Traces; name?: string; isBare?: boolean;
}) {
  const own = useRef<number[] | undefined>(undefined);
  const timer = useRef<number>(undefined);
  const isMoment = MOMENTS.has(signal.kind);
  const light = Array.isArray(now.value) && now.value.length === 3 && signal.kind === "colour" ? (now.value as [number, number, number]) : undefined;
  const value = typeof now.value === "number" ? now.value : typeof now.value === "boolean" ? Number(now.value) : undefined;
  const values = own.current ?? now.held ?? signal.parts.map((_, i) => rawOf(now, i) ?? signal.rest);
  const set = (...wanted: number[]): void => {
    own.current = isMoment ? undefined : wanted;
    const [first] = wanted;
    link.steer("PUT", path("signals", signal.name), { value: isMoment && signal.kind === "event" ? 1 : wanted.length === 1 ? first : wanted });
    window.clearTimeout(timer.current);
    timer.current = window.setTimeout(() => (own.current = undefined), HELD_MS);
    link.tell();
  };
  const source = now.hand === "set" ? "by hand" : now.hand === "lost" ? "lost by hand" : now.source;
  return (
    <li class={now.hand ? "signal held" : "signal"}>
      <div class="head">
        <span class="name">{name ?? signal.name}</span>
        <Reading signal={signal} value={value} light={light} isLost={now.lost && !isMoment} />
        {traces && <Trace values={traces.of(signal.name)} room={traces.room} signal={signal} label={signal.name} />}
      </div>
      {!now.computed && !mayLook(link) && (
        <div class="control">
          <Control signal={signal} value={values[0] ?? signal.rest} values={values} set={set} />
          {!isMoment && !isBare && (
            <button class={now.hand === "lost" ? "small on" : "small"} aria-pressed={now.hand === "lost"} aria-label={`${signal.name}: lost`} title="ignore its sources"
              onClick={() => now.hand === "lost" ? link.steer("DELETE", path("signals", signal.name)) : link.steer("POST", path("signals", signal.name, "lose"))}>
              lost
            </button>
          )}
        </div>
      )}
      <p class="faint foot">
        <span>{now.computed ? "computed" : `${source}${now.age_s !== null && !now.hand ? `, ${ageText(now.age_s)}` : ""}${now.rate_hz > 0.05 && !isBare ? `, ${now.rate_hz.toFixed(1)}/s` : ""}`}</span>
        <span>
          {now.refused > 0 && !isBare && <span class="bad" title={now.problem}>{now.refused} refused </span>}
          {now.hand && !mayLook(link) && <button class="link" onClick={() => link.steer("DELETE", path("signals", signal.name))}>release</button>}
        </span>
      </p>
    </li>
  );
}

function rawOf(now: LiveSignal, place: number): number | undefined {
  const raw: unknown = Array.isArray(now.raw) ? now.raw[place] : place === 0 ? now.raw : undefined;
  if (typeof raw === "boolean") return Number(raw);
  if (typeof raw === "number") return raw;
  if (typeof raw === "string" && /^#[0-9a-f]{6}$/i.test(raw)) return parseInt(raw.slice(1), 16);
  return undefined;
}
