/** The page as a whole. */

import { useEffect, useMemo, useReducer, useRef, useState } from "preact/hooks";
import { fromAddress, toAddress } from "../address";
import type { PageData } from "../data";
import type { Player } from "../player";
import { SIDES } from "../space/camera";
import type { Space } from "../space/space";
import { Ask } from "./ask";
import { Led } from "./led";
import { Pads } from "./pads";
import { Signals, Traces } from "./signals";
import { Strip, Time } from "./time";
import { View, type ViewState } from "./view";
import { Why } from "./why";

const TELL_MS = 90;
const TABS = { signals: "signals", why: "layers", led: "LED" };
type Tab = keyof typeof TABS;

export function App({ data, player, start }: { data: PageData; player: Player; start: ReturnType<typeof fromAddress> }) {
  const [, refresh] = useReducer<number, undefined>((count) => count + 1, 0);
  const look = player.first.look;
  const [shown, setShown] = useState<ViewState>({
    view: start.view ?? look.view,
    wires: start.wires ?? false,
    names: start.names ?? false,
    addresses: start.addresses ?? false,
    led: start.led !== undefined && start.led < look.leds.count ? start.led : undefined,
  });
  const [tab, setTab] = useState<Tab>(start.led === undefined ? "signals" : "led");
  const spaces = useRef<(Space | undefined)[]>([]);
  const strip = useMemo(() => new Strip(player), [player]);
  const traces = useMemo(() => new Traces(look.rate), [player]);
  const pads = useMemo(() => new Pads(player, () => refresh(undefined)), [player]);
  const latest = useRef(shown);
  latest.current = shown;

  const keep = (): void => {
    const orbit = spaces.current[0]?.orbit;
    const text = toAddress({
      ...latest.current, time: player.time, speed: player.speed, deeds: player.deeds,
      view: orbit?.text ?? latest.current.view,
    });
    try {
      if (text) history.replaceState(null, "", `#${text}`);
    } catch {
      // in a notebook's cell, and in some apps that show files, a page has no address of its own
    }
  };

  useEffect(() => {
    player.onFrame((run) => {
      if (run !== player.first) return;
      for (const signal of look.signals) {
        const light = run.module.toldLight(`why:signal:${signal.name}`);
        const value = light ? light[1] : run.module.told(`why:signal:${signal.name}`);
        if (value !== undefined) traces.push(signal.name, value);
      }
    });
    player.goTo(Math.min(start.time ?? 0, player.end));
    let [before, told, next] = [performance.now(), 0, 0];
    const tick = (now: number): void => {
      next = requestAnimationFrame(tick);
      pads.poll();
      player.pass((now - before) / 1000);
      before = now;
      if (player.isPlaying && now - told > TELL_MS) {
        told = now;
        refresh(undefined);
      }
    };
    next = requestAnimationFrame(tick);
    const plugged = (): void => refresh(undefined);
    window.addEventListener("gamepadconnected", plugged);
    const stop = player.onChange(() => {
      refresh(undefined);
      keep();
    });
    player.isReady = true;
    refresh(undefined);
    return () => {
      cancelAnimationFrame(next);
      window.removeEventListener("gamepadconnected", plugged);
      stop();
    };
  }, [player]);

  useEffect(keep, [shown]);

  const lookFrom = (side: string): void => {
    for (const space of spaces.current) space?.orbit.look(side);
    setShown((was) => ({ ...was, view: side }));
  };
  const toggle = (key: "wires" | "names" | "addresses"): void => setShown((was) => ({ ...was, [key]: !was[key] }));

  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      const target = event.target as HTMLElement;
      if (["INPUT", "SELECT", "TEXTAREA"].includes(target.tagName) || event.ctrlKey || event.metaKey || event.altKey) return;
      const side = Object.keys(SIDES)[Number(event.key) - 1];
      if (event.key === " " && target.tagName !== "BUTTON") player.play(!player.isPlaying);
      else if (event.key === ",") player.stepBy(-1);
      else if (event.key === ".") player.stepBy(1);
      else if (event.key === "Home") player.stepBy(-player.first.frame);
      else if (event.key === "w") toggle("wires");
      else if (event.key === "n") toggle("names");
      else if (event.key === "a") toggle("addresses");
      else if (event.key === "Escape") setShown((was) => ({ ...was, led: undefined }));
      else if (side) lookFrom(side);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);

  const now = spaces.current[0]?.orbit.side ?? shown.view;
  const led = shown.led;
  const spot = led === undefined ? undefined : spaces.current[0]?.spot[led];
  const isChosen = spot !== undefined && spot < look.spots.count;
  return (
    <main class={data.looks.length > 1 ? "page two" : "page"}>
      <header class="top">
        <div>
          <h1>{data.title}</h1>
          <p class="faint">{look.about || `${look.leds.count} LEDs, ${look.rate} frames a second`}</p>
        </div>
        <nav aria-label="View">
          <div class="group" role="group" aria-label="Side">
            {Object.keys(SIDES).map((side, i) => (
              <button key={side} class={now === side ? "small on" : "small"} aria-pressed={now === side} title={`key ${i + 1}`}
                onClick={() => lookFrom(side)}>
                {side}
              </button>
            ))}
          </div>
          <div class="group" role="group" aria-label="Overlays">
            {(["wires", "names", "addresses"] as const).map((key) => (
              <button key={key} class={shown[key] ? "small on" : "small"} aria-pressed={shown[key]} title={`key ${key[0]!}`}
                onClick={() => toggle(key)}>
                {key}
              </button>
            ))}
          </div>
        </nav>
      </header>
      <div class="views">
        {player.runs.map((run, i) => (
          <View key={i} run={run} player={player} shown={i === 0 ? shown : { ...shown, led: undefined }}
            label={data.looks.length > 1 ? run.look.label || run.look.name : ""}
            ready={(space) => {
              spaces.current[i] = space;
              refresh(undefined);
            }}
            moved={() => {
              const from = spaces.current[i]?.orbit.text;
              if (from) spaces.current.forEach((space, j) => j !== i && space?.orbit.look(from));
              refresh(undefined);
              keep();
            }}
            touched={(found, space) => {
              const place = found === undefined ? undefined : space.position.subarray(3 * found, 3 * found + 3);
              if (place && pads.touch(place)) return;
              if (i !== 0) return;
              setShown((was) => ({ ...was, led: found }));
              if (found !== undefined) setTab("led");
            }} />
        ))}
        {player.flashes === "asking" && <Ask of={player} />}
      </div>
      <aside class="side" aria-label="Signals and layers">
        <div class="tabs" role="tablist">
          {(Object.keys(TABS) as Tab[]).map((each) => (
            <button key={each} role="tab" aria-selected={tab === each} class={tab === each ? "on" : ""} onClick={() => setTab(each)}>
              {TABS[each]}
            </button>
          ))}
        </div>
        <div class="content" role="tabpanel">
          {tab === "signals" && <Signals player={player} traces={traces} pads={pads} />}
          {tab === "signals" && pads.count > 0 && <Axes pads={pads} player={player} />}
          {tab === "why" && <Why run={player.first} />}
          {tab === "led" && (isChosen ? <Led run={player.first} spot={spot} /> : <p class="faint">Touch an LED to see what it is and why it has its colour.</p>)}
        </div>
      </aside>
      <Time player={player} strip={strip} />
    </main>
  );
}

function Axes({ pads, player }: { pads: Pads; player: Player }) {
  const numbers = player.first.look.signals.filter((signal) => signal.kind === "number" && signal.of === "");
  return (
    <section aria-label="Gamepad">
      <h2>Gamepad</h2>
      {Array.from({ length: Math.min(pads.count, 6) }, (_, axis) => (
        <label key={axis} class="axis">
          axis {axis}
          <select value={pads.axes.get(axis) ?? ""} onChange={(event) => pads.bind(axis, event.currentTarget.value)}>
            <option value="">not used</option>
            {numbers.map((signal) => <option key={signal.name} value={signal.name}>{signal.name}</option>)}
          </select>
        </label>
      ))}
    </section>
  );
}
