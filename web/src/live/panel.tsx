/** The panel: what the design's author put onto a phone, in their order, and nothing else. */

import { useEffect, useReducer } from "preact/hooks";
import type { PanelRow } from "../data";
import { Cues, Level, mayLook, OnOff, Scenes, SignalRow } from "./hand";
import type { Link } from "./link";
import { Joining, Problem } from "./joining";

const HEADS = { level: "Master level", on: "", scene: "Scene", cues: "Cues" };

export function Panel({ link }: { link: Link }) {
  const [, refresh] = useReducer<number, undefined>((count) => count + 1, 0);
  useEffect(() => link.onChange(() => refresh(undefined)), [link]);
  const { state, picture } = link;
  if (!state || !picture || link.status === "refused") return <Joining link={link} />;
  return (
    <main class="panel">
      <header>
        <h1>{state.design}</h1>
        <p class={link.status === "open" ? "faint" : "bad"} role="status">
          {link.status !== "open" ? "The run has stopped. This page waits for it." : mayLook(link) ? "View only. To steer, open the other address." : state.scene ?? ""}
        </p>
      </header>
      {picture.look.panel.map((row, i) => <Row key={i} link={link} row={row} />)}
      <Problem link={link} />
    </main>
  );
}

function Row({ link, row }: { link: Link; row: PanelRow }) {
  const { state, picture } = link;
  if (!state || !picture) return null;
  if (row.signal !== null) {
    const signal = picture.look.signals.find((each) => each.name === row.signal);
    const now = state.signals.find((each) => each.name === row.signal);
    if (!signal || !now) return null;
    return <ul class="signals"><SignalRow link={link} signal={signal} now={now} name={row.name || signal.name} isBare /></ul>;
  }
  const control = row.control ?? "on";
  const head = row.name || HEADS[control];
  return (
    <section>
      {head && control !== "level" && <h2>{head}</h2>}
      {control === "on" && <OnOff link={link} state={state} />}
      {control === "level" && <Level link={link} state={state} name={head} />}
      {control === "scene" && <Scenes link={link} state={state} />}
      {control === "cues" && <Cues link={link} state={state} canKeep={!mayLook(link)} />}
    </section>
  );
}
