/** The LED that was touched: what it is, and why it looks as it does. */

import { explain } from "../explain";
import type { Run } from "../run";
import { hexOf, percent } from "../words";

export function Led({ run, spot }: { run: Run; spot: number }) {
  const told = explain(run, spot);
  const touches = told.touches.toReversed();
  return (
    <section class="led" aria-label={`LED ${told.name}`}>
      <h2>
        <i class="chip" style={{ background: hexOf(told.light) }} /> {told.name}
      </h2>
      <p class="faint">
        line {told.line}, address {told.address}; bytes {told.rgb.join(" ")} (red green blue), sent as {told.order}; master{" "}
        {percent(told.master)}
      </p>
      <h2 class="over">Its layers, top first</h2>
      {touches.length === 0 && <p>No layer has this LED.</p>}
      <ol class="touches">
        {touches.map(({ layer, isOn, facts, before, after }) => (
          <li key={layer.number} class={isOn ? "touch" : "touch off"}>
            <span class="name">
              {isOn && <Change from={hexOf(before)} to={hexOf(after)} />}
              {layer.name}
            </span>
            <span class="faint">
              {layer.effect} on {layer.on}, {layer.why}
            </span>
            {facts.length > 0 && (
              <span class="facts">
                {facts.map(([key, value]) => (
                  <span key={key}>
                    {key} <b>{value}</b>
                  </span>
                ))}
              </span>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

function Change({ from, to }: { from: string; to: string }) {
  return (
    <span class="change" title={`${from} before, ${to} after`}>
      <i class="chip" style={{ background: from }} />
      <i class="chip" style={{ background: to }} />
    </span>
  );
}

