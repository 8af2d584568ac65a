/** How the run goes: pace, sources, outputs, supplies, layers. */

import type { State } from "../data";
import { percent, spanText } from "../words";
import { mayLook } from "./hand";
import type { Link } from "./link";

export function RunState({ link, state }: { link: Link; state: State }) {
  const { rate } = state;
  return (
    <div class="run">
      <h2>Pace</h2>
      <dl class="figures">
        <dt>frames a second</dt><dd>{rate.now.toFixed(1)} of {rate.wanted}</dd>
        <dt>late, usually</dt><dd>{rate.late_ms.toFixed(2)} ms</dd>
        <dt>late, 1 in 100</dt><dd>{rate.late_p99_ms.toFixed(2)} ms</dd>
        <dt>skipped</dt><dd class={rate.left_out > 0 ? "warn" : ""}>{rate.left_out} of {rate.made + rate.left_out}</dd>
        <dt>processor, light</dt><dd>{percent1(rate.loop)}</dd>
        <dt>processor, page</dt><dd>{percent1(rate.page)}</dd>
        <dt>engine</dt><dd>{state.engine}</dd>
        <dt>runs for</dt><dd>{spanText(state.running_s)}</dd>
        <dt>pages open</dt><dd>{state.pages}</dd>
      </dl>
      <h2>Sources</h2>
      {state.sources.length === 0 && <p class="faint">No source.</p>}
      {state.sources.map((source) => (
        <Item key={source.name} name={source.name} what={source.what} problem={source.problem} since={source.since_s}
          facts={[source.refused ? `${source.refused} refused` : "", source.skipped ? `${source.skipped} skipped` : "", source.ended ? "ended" : ""]} />
      ))}
      <h2>Outputs</h2>
      {state.outputs.length === 0 && <p class="faint">No output: this page alone shows the light.</p>}
      {state.outputs.map((output) => (
        <Item key={output.name} name={output.name} what={output.what} problem={output.problem} since={output.since_s}
          facts={[`${output.sent} sent`, output.replaced ? `${output.replaced} replaced` : "", output.busy_ms > 0.05 ? `${output.busy_ms.toFixed(1)} ms a frame` : ""]} />
      ))}
      <h2>Supplies</h2>
      {state.supplies.map((supply) => {
        const share = supply.limit_a ? supply.amps / supply.limit_a : 0;
        return (
          <div key={supply.name} class="item">
            <b>{supply.name || "the supply"}</b>
            <span>{supply.amps.toFixed(2)} A{supply.limit_a !== null ? ` of ${supply.limit_a.toFixed(2)}` : ""}</span>
            {supply.limit_a !== null && <span class="meter"><i class={share > 1.001 ? "beyond" : ""} style={{ width: `${Math.min(100 * share, 100)}%` }} /></span>}
            {supply.let_through !== null && supply.let_through < 1 && <span class="warn">limiter: {percent(supply.let_through)} of the light</span>}
          </div>
        );
      })}
      <h2>Layers</h2>
      {state.layers.toReversed().map((layer) => (
        <div key={layer.name} class={layer.on ? "fact" : "fact off"}>
          <i class={layer.on ? "dot on" : "dot"} />
          <span class="name">{layer.name}</span>
          {layer.presets.length > 0 && (
            <label class="faint preset">
              preset{" "}
              <select aria-label={`${layer.name}: preset`} value={layer.preset ?? ""} disabled={mayLook(link)}
                onChange={(event) => link.steer("PUT", `/api/layers/${encodeURIComponent(layer.name)}/preset`, { value: event.currentTarget.value || null })}>
                <option value="">as designed</option>
                {layer.presets.map((preset) => <option key={preset} value={preset}>{preset}</option>)}
              </select>
            </label>
          )}
        </div>
      ))}
    </div>
  );
}

function percent1(share: number): string {
  return `${(100 * share).toFixed(1)} %`;
}

function Item({ name, what, problem, since, facts }: { name: string; what: string; problem: string | null; since: number | null; facts: string[] }) {
  return (
    <div class="item">
      <b><i class={problem ? "dot bad" : "dot on"} /> {name}</b>
      {what !== name && <span class="faint">{what}</span>}
      <span class="faint">{facts.filter(Boolean).join(", ")}</span>
      {problem && <span class="bad">{problem} {since !== null && `(since ${spanText(since)})`}</span>}
    </div>
  );
}
