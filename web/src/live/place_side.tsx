/** Beside the map: the numbers of what is chosen, groups and layers made of it, undo and redo. */

import { useState } from "preact/hooks";
import type { FoundThing, PlacedPart, SheetLayer } from "../data";
import { asChoice, asTrail, type Desk } from "./desk";
import { capital } from "./joining";
import type { LivePicture } from "./link";

export function PlaceSide({ desk, picture }: { desk: Desk; picture: LivePicture }) {
  const { sheet } = desk;
  if (!sheet) return <p class="faint">{desk.problem ? capital(desk.problem) : "Reading the design…"}</p>;
  const part = sheet.parts.find((each) => each.name === desk.part);
  const findings = part ? sheet.findings.filter((each) => isAbout(each, part.path)) : [];
  return (
    <div class="place">
      <div class="two-columns">
        <button disabled={!sheet.can_undo} onClick={() => void desk.undo()}>undo</button>
        <button disabled={!sheet.can_redo} onClick={() => void desk.redo()}>redo</button>
      </div>
      <label class="row">steps of{" "}
        <select aria-label="Snap" value={String(desk.snap)} onChange={(event) => { desk.snap = Number(event.currentTarget.value); desk.tell(); }}>
          {[0, 0.1, 0.5, 1, 2, 5, 10, 25].map((step) => <option key={step} value={String(step)}>{step === 0 ? "none" : step}</option>)}
        </select>
      </label>
      <label class="row"><input type="checkbox" checked={desk.single} onChange={(event) => { desk.single = event.currentTarget.checked; desk.tell(); }} /> single LEDs</label>
      <label class="row"><input type="checkbox" checked={desk.isDrawing} onChange={(event) => { desk.isDrawing = event.currentTarget.checked; desk.choose(""); }} /> draw a trail over LEDs</label>
      {desk.problem && <p class="problem" role="alert">{capital(desk.problem)}</p>}
      {part && <Part key={`${part.name}/${sheet.version}`} desk={desk} part={part} />}
      {findings.map((each, i) => <p key={i} class={`finding ${each.severity}`}>{each.severity}: {each.message} {each.remedy}</p>)}
      {desk.chosen.size > 0 && <Chosen desk={desk} picture={picture} />}
      {!part && desk.chosen.size === 0 && (
        <p class="faint">Touch a part to choose it; drag it, or its handle to turn it. Drag across empty space to choose LEDs. Shift and drag moves the map, the wheel zooms.</p>
      )}
      <Photo desk={desk} />
      <h2>Layers</h2>
      {sheet.layers.map((layer) => <LayerRow key={`${layer.name}/${sheet.version}`} desk={desk} layer={layer} />)}
    </div>
  );
}

function isAbout(finding: FoundThing, path: readonly (string | number)[]): boolean {
  return path.every((step, i) => finding.path[i] === step);
}

function Part({ desk, part }: { desk: Desk; part: PlacedPart }) {
  return (
    <section aria-label={`Part ${part.name}`}>
      <h2>{part.name}: {part.shape}</h2>
      {!part.is_movable && <p class="faint">It stands on another part; move that one.</p>}
      {part.is_movable && (
        <div class="numbers">
          <span>middle</span>
          {part.middle.map((value, axis) => (
            <Field key={axis} label={`middle ${"xyz"[axis]}`} value={value}
              put={(wanted) => {
                const by = [0, 0, 0];
                by[axis] = Math.round((wanted - value) * 1000) / 1000;
                void desk.edit({ do: "move", part: part.name, by });
              }} />
          ))}
          <span>turn by</span>
          <Field label="turn by" value={0} put={(degrees) => void desk.edit({ do: "turn", part: part.name, degrees })} />
        </div>
      )}
      <div class="numbers">
        {Object.entries(part.written).map(([key, value]) => <Written key={key} desk={desk} part={part} name={key} value={value} />)}
      </div>
    </section>
  );
}

function Written({ desk, part, name, value }: { desk: Desk; part: PlacedPart; name: string; value: unknown }) {
  const put = (wanted: unknown): void => void desk.edit({ do: "set", path: part.path, key: name, value: wanted });
  if (typeof value === "number") {
    return <><span>{name}</span><Field label={name} value={value} put={put} /></>;
  }
  if (Array.isArray(value) && value.every((each) => typeof each === "number")) {
    const numbers: number[] = value;
    return (
      <>
        <span>{name}</span>
        {numbers.map((each, i) => (
          <Field key={i} label={`${name} ${"xyz"[i] ?? i}`} value={each} put={(wanted) => put(numbers.map((other, j) => (i === j ? wanted : other)))} />
        ))}
      </>
    );
  }
  return null;
}

function Field({ label, value, put }: { label: string; value: number; put: (value: number) => void }) {
  return (
    <input type="number" step="any" aria-label={label} value={String(Math.round(value * 1000) / 1000)}
      onChange={(event) => {
        const wanted = Number(event.currentTarget.value);
        if (event.currentTarget.value !== "" && Number.isFinite(wanted) && wanted !== value) put(wanted);
      }} />
  );
}

const ORDERS = { wire: "order of the wire", x: "left to right", y: "back to front", "-x": "right to left", "-y": "front to back" };

function Chosen({ desk, picture }: { desk: Desk; picture: LivePicture }) {
  const [name, setName] = useState("");
  const [order, setOrder] = useState("wire");
  const { spots, look } = picture;
  const partOf = (spot: number): string => look.parts[spots.part[spot]!] ?? "";
  const indexOf = (spot: number): number => spots.indexOf(spot);
  const rows = asChoice(desk.chosen, partOf, indexOf);
  const isDrawn = desk.drawn.length > 0;
  const of = rows.length === 1 ? rows[0]! : rows;
  const trail = isDrawn ? { join: asTrail(desk.drawn, partOf, indexOf) } : order === "wire" ? { of } : { of, by: order };
  const isNamed = /^\w[\w.-]*$/.test(name);
  return (
    <section aria-label="Chosen LEDs">
      <h2>{desk.chosen.size === 1 ? "1 LED" : `${desk.chosen.size} LEDs`} chosen</h2>
      <p class="faint written">{rows.join(", ")}</p>
      <label class="row">name{" "}<input aria-label="Name of the group" value={name} onInput={(event) => setName(event.currentTarget.value)} placeholder="tail-middle" /></label>
      <button class="wide" disabled={!isNamed} onClick={() => void desk.edit({ do: "group", name, of })}>make it a group</button>
      <div class="two-columns">
        <select aria-label="Order of the trail" value={isDrawn ? "drawn" : order} disabled={isDrawn} onChange={(event) => setOrder(event.currentTarget.value)}>
          {isDrawn && <option value="drawn">as drawn</option>}
          {Object.entries(ORDERS).map(([key, text]) => <option key={key} value={key}>{text}</option>)}
        </select>
        <button disabled={!isNamed} onClick={() => void desk.edit({ do: "trail", name, of: trail })}>make it a trail</button>
      </div>
      <NewLayer desk={desk} on={of} />
    </section>
  );
}

function NewLayer({ desk, on }: { desk: Desk; on: string | string[] }) {
  const [effect, setEffect] = useState("solid");
  const [colour, setColour] = useState("#ff8a00");
  const taken = new Set(desk.sheet?.layers.map((layer) => layer.name));
  let name = `${effect} by hand`;
  for (let i = 2; taken.has(name); i++) name = `${effect} by hand ${i}`;
  return (
    <div class="two-columns">
      <select aria-label="Effect of the new layer" value={effect} onChange={(event) => setEffect(event.currentTarget.value)}>
        {desk.sheet?.effects.map((each) => <option key={each} value={each}>{each}</option>)}
      </select>
      <input type="color" aria-label="Colour of the new layer" value={colour} onInput={(event) => setColour(event.currentTarget.value)} />
      <button class="wide" onClick={() => void desk.edit({ do: "layer", values: { name, on, effect, colour } })}>put a layer on it</button>
    </div>
  );
}

function LayerRow({ desk, layer }: { desk: Desk; layer: SheetLayer }) {
  const put = (key: string, value: unknown): void => void desk.edit({ do: "set", path: layer.path, key, value });
  const findings = desk.sheet?.findings.filter((each) => isAbout(each, layer.path)) ?? [];
  return (
    <details class="layer-row">
      <summary>{layer.name} <span class="faint">{layer.effect} on {layer.on}</span></summary>
      <div class="numbers">
        {Object.entries(layer.colours).map(([key, value]) => (
          <><span>{key}</span><input type="color" aria-label={`${layer.name}: ${key}`} value={value} onChange={(event) => put(key, event.currentTarget.value)} /></>
        ))}
        {Object.entries(layer.numbers).map(([key, value]) => (
          <><span>{key}</span><Field label={`${layer.name}: ${key}`} value={value} put={(wanted) => put(key, wanted)} /></>
        ))}
      </div>
      {findings.map((each, i) => <p key={i} class={`finding ${each.severity}`}>{each.message} {each.remedy}</p>)}
    </details>
  );
}

function Photo({ desk }: { desk: Desk }) {
  const { photo } = desk;
  const change = (by: Partial<NonNullable<Desk["photo"]>>): void => {
    if (photo) desk.photo = { ...photo, ...by };
    desk.tell();
  };
  return (
    <details class="layer-row">
      <summary>a drawing or photo under the map</summary>
      <input type="file" accept="image/*" aria-label="A drawing or photo" onChange={(event) => {
        const file = event.currentTarget.files?.[0];
        if (photo) URL.revokeObjectURL(photo.address);
        desk.photo = file ? { address: URL.createObjectURL(file), width: 1000, x: 0, y: 0, opacity: 0.5 } : undefined;
        desk.tell();
      }} />
      {photo && (
        <div class="numbers">
          <span>as wide as</span><Field label="width of the picture" value={photo.width} put={(width) => change({ width: Math.max(width, 1) })} />
          <span>middle</span>
          <Field label="picture x" value={photo.x} put={(x) => change({ x })} />
          <Field label="picture y" value={photo.y} put={(y) => change({ y })} />
          <span>strength</span>
          <input type="range" min={0} max={1} step={0.05} aria-label="strength of the picture" value={photo.opacity} onInput={(event) => change({ opacity: Number(event.currentTarget.value) })} />
        </div>
      )}
    </details>
  );
}
