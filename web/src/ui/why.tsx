/** Scenes and layers that are on, and why; what each supply gives. */

import type { Run } from "../run";
import { percent } from "../words";

export function Why({ run }: { run: Run }) {
  const { look, module } = run;
  const { places } = module;
  const amps = module.amps();
  return (
    <>
      {look.scenes.length > 0 && (
        <section aria-label="Scenes">
          <h2>Scenes</h2>
          <ul>
            {look.scenes.map((scene, i) => {
              const share = module.read(places.scenes[i]);
              return (
                <li key={scene.name} class={share > 0 ? "fact" : "fact off"}>
                  <Meter share={share} label={`${scene.name}: ${percent(share)}`} />
                  <span class="name">{scene.name}</span>
                  <span class="faint">{scene.why}</span>
                </li>
              );
            })}
          </ul>
        </section>
      )}
      <section aria-label="Supplies">
        <h2>Current</h2>
        <ul>
          {look.supplies.map((supply) => {
            const drawn = (amps[supply.name] ?? 0) + supply.idle_a;
            const limit = supply.limit_a;
            const through = module.letThrough(supply.name);
            const name = supply.name || "supply";
            return (
              <li key={supply.name} class="fact">
                <Meter share={limit ? drawn / limit : 0} label={`${name}: ${drawn.toFixed(2)} A`} />
                <span class="name">{name}</span>
                <span class="faint">
                  {drawn.toFixed(2)} A{limit ? ` of ${limit.toFixed(2)} A` : ""}
                  {supply.has_limiter ? (through < 1 ? `; limited to ${percent(through)}` : "; limiter idle") : ""}
                </span>
              </li>
            );
          })}
        </ul>
      </section>
      <section aria-label="Layers">
        <h2>Layers, top first</h2>
        <ul>
          {look.layers.toReversed().map((layer) => {
            const painted = places.layers.find((each) => each.number === layer.number);
            const isOn = painted !== undefined && module.read(painted.on) !== 0;
            return (
              <li key={layer.number} class={isOn ? "fact" : "fact off"}>
                <i class={isOn ? "dot on" : "dot"} role="img" aria-label={isOn ? "on" : "off"} />
                <span class="name">{layer.name}</span>
                <span class="faint">{painted ? layer.why : `${layer.why}: never`}</span>
              </li>
            );
          })}
        </ul>
      </section>
    </>
  );
}

function Meter({ share, label }: { share: number; label: string }) {
  const held = Math.min(Math.max(share, 0), 1);
  return (
    <span class="meter" role="img" aria-label={label}>
      <i style={{ width: `${100 * held}%` }} class={share > 1 ? "beyond" : ""} />
    </span>
  );
}
