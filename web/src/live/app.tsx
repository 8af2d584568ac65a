/** The page of a run as a whole: its light in space, and beside it what can be seen and done. */

import { useEffect, useMemo, useReducer, useRef, useState } from "preact/hooks";
import { SIDES } from "../space/camera";
import type { Space } from "../space/space";
import { Ask } from "../ui/ask";
import { Traces } from "../ui/signals";
import { View, type ViewState } from "../ui/view";
import { Bench } from "./bench";
import { Desk } from "./desk";
import { Cues, Level, mayLook, OnOff, Scenes, SignalRow } from "./hand";
import { Joining, Problem } from "./joining";
import type { Link } from "./link";
import { Place } from "./place";
import { RunState } from "./run";
import { TextEditor } from "./text";

const STATES_A_SECOND = 5;
const TABS = { signals: "signals", run: "run", place: "place", text: "text" };
type Tab = keyof typeof TABS;

export function LiveApp({ link }: { link: Link }) {
  const [, refresh] = useReducer<number, undefined>((count) => count + 1, 0);
  const [shown, setShown] = useState<ViewState>({ view: "", wires: false, names: false, addresses: false, led: undefined });
  const [tab, setTab] = useState<Tab>("signals");
  const space = useRef<Space>(undefined);
  const traces = useMemo(() => new Traces(STATES_A_SECOND), []);
  const desk = useMemo(() => new Desk(link, () => refresh(undefined)), [link]);
  const last = useRef(link.state);
  useEffect(() => link.onChange(() => {
    if (link.state && link.state !== last.current) {
      last.current = link.state;
      for (const signal of link.state.signals) {
        const value = Array.isArray(signal.value) ? signal.value[1] : signal.value;
        if (value !== null && value !== undefined) traces.push(signal.name, Number(value));
      }
    }
    refresh(undefined);
  }), [link]);

  const { state, picture, hello } = link;
  const hasDesk = hello?.has_desk === true;
  useEffect(() => {
    if (hasDesk && (tab === "place" || tab === "text")) void desk.load();
  }, [tab, hasDesk, state?.file]);
  if (!state || !picture || link.status === "refused") return <Joining link={link} />;
  const { look } = picture;
  const now = space.current?.orbit.side ?? (shown.view || look.view);
  const lookFrom = (side: string): void => {
    space.current?.orbit.look(side);
    setShown((was) => ({ ...was, view: side }));
  };
  const led = shown.led !== undefined && shown.led < look.leds.count ? shown.led : undefined;
  const spot = led === undefined ? undefined : space.current?.spot[led];
  const tabs = (Object.keys(TABS) as Tab[]).filter((each) => hasDesk || (each !== "place" && each !== "text"));
  const isPlacing = tab === "place" && !state.bench;
  return (
    <main class={tab === "text" ? "page live wide-side" : "page live"}>
      <header class="top">
        <div>
          <h1>{state.design}{state.bench ? ": the bench" : ""}</h1>
          <p class={link.status === "open" ? "faint" : "bad"} role="status">{statusOf(link)}</p>
        </div>
        <nav aria-label="View">
          {!isPlacing && (
            <div class="group" role="group" aria-label="Side">
              {Object.keys(SIDES).map((side) => (
                <button key={side} class={now === side ? "small on" : "small"} aria-pressed={now === side} onClick={() => lookFrom(side)}>{side}</button>
              ))}
            </div>
          )}
          {!isPlacing && (
            <div class="group" role="group" aria-label="Overlays">
              {(["wires", "names", "addresses"] as const).map((key) => (
                <button key={key} class={shown[key] ? "small on" : "small"} aria-pressed={shown[key]}
                  onClick={() => setShown((was) => ({ ...was, [key]: !was[key] }))}>
                  {key}
                </button>
              ))}
            </div>
          )}
        </nav>
      </header>
      <div class="views">
        {isPlacing ? (
          <Place desk={desk} picture={picture} />
        ) : (
          <View key={look.number} run={picture} player={link} shown={{ ...shown, view: shown.view || look.view, led }} label=""
            ready={(made) => {
              space.current = made;
              refresh(undefined);
            }}
            moved={() => {
              setShown((was) => ({ ...was, view: space.current?.orbit.text ?? was.view }));
            }}
            touched={(found) => setShown((was) => ({ ...was, led: found }))} />
        )}
        {spot !== undefined && spot < look.spots.count && !isPlacing && (
          <p class="touched">
            <b>{picture.spots.nameOf(spot)}</b> line {look.lines[picture.spots.line[spot]!]?.name}, address {picture.spots.address[spot]};
            shows {[...picture.seen().subarray(3 * spot, 3 * spot + 3)].join(" ")} of 255, red green blue
          </p>
        )}
        {link.flashes === "asking" && <Ask of={link} />}
      </div>
      <aside class="side" aria-label="The run">
        {state.bench ? (
          <div class="content"><Bench link={link} bench={state.bench} /></div>
        ) : (
          <>
            <div class="tabs" role="tablist">
              {tabs.map((each) => (
                <button key={each} role="tab" aria-selected={tab === each} class={tab === each ? "on" : ""} onClick={() => setTab(each)}>{TABS[each]}</button>
              ))}
            </div>
            <div class="content" role="tabpanel">
              {tab === "signals" && (
                <>
                  <OnOff link={link} state={state} />
                  <Level link={link} state={state} />
                  {state.scenes.length > 0 && <h2>Scene</h2>}
                  <Scenes link={link} state={state} />
                  <h2>Signals</h2>
                  <ul class="signals" aria-label="Signals">
                    {look.signals.map((signal) => {
                      const is = state.signals.find((each) => each.name === signal.name);
                      return is && <SignalRow key={signal.name} link={link} signal={signal} now={is} traces={traces} />;
                    })}
                  </ul>
                  <h2>Cues</h2>
                  <Cues link={link} state={state} canKeep={!mayLook(link)} />
                </>
              )}
              {tab === "run" && <RunState link={link} state={state} />}
              {tab === "place" && <desk.Side picture={picture} />}
              {tab === "text" && <TextEditor desk={desk} />}
            </div>
          </>
        )}
        <Problem link={link} />
      </aside>
    </main>
  );
}

function statusOf(link: Link): string {
  if (link.status !== "open") return "The run has stopped. This page waits for it.";
  const { state } = link;
  if (!state || state.bench) return "";
  const troubles = [...state.sources, ...state.outputs].filter((each) => each.problem !== null).length;
  const lost = state.signals.filter((each) => each.lost && !each.computed).length;
  return [
    state.scene ? `scene ${state.scene}` : "",
    `${state.rate.now.toFixed(1)} frames/s`,
    lost ? `${lost} signals lost` : "",
    troubles ? `${troubles} failing` : "",
    mayLook(link) ? "view only" : "",
  ].filter(Boolean).join(" · ");
}
