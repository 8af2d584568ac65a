/** Why an LED looks as it does: layer by layer, as the module paints it. */

import type { Layer } from "./data";
import { type Light, lightOf, type Module } from "./module";
import type { Run } from "./run";
import { hexOf, numberText, percent } from "./words";

export interface Touch {
  layer: Layer;
  isOn: boolean;
  /** What is told of it, in words. */
  facts: [string, string][];
  before: Light;
  after: Light;
}

export interface Explanation {
  name: string;
  line: string;
  order: string;
  address: number;
  touches: Touch[];
  light: Light;
  master: number;
  /** Red, green and blue as bytes, before they are put into the order of the wire. */
  rgb: [number, number, number];
}

/** The place of a spot in a layer; none where the layer does not have it. */
function placeIn(layer: Layer, spot: number): number | undefined {
  for (const [first, end, place] of layer.runs) {
    if (spot >= first! && spot < end!) return place! + spot - first!;
  }
  return undefined;
}

export function explain(run: Run, spot: number): Explanation {
  const { look, module, spots } = run;
  const painted = module.places.layers;
  const touches: Touch[] = [];
  let before: Light = [0, 0, 0];
  const rank = new Map(painted.map((each, i) => [each.number, i]));
  for (const layer of look.layers) {
    const place = placeIn(layer, spot);
    const own = rank.get(layer.number);
    if (place === undefined) continue;
    if (own === undefined) {
      touches.push({ layer, isOn: false, facts: [], before, after: before });
      continue;
    }
    const after = module.lightWithout(spot, (number) => rank.get(number)! > own);
    const isOn = module.read(painted[own]!.on) !== 0;
    touches.push({ layer, isOn, facts: isOn ? factsOf(module, layer, place, spot) : [], before, after });
    before = after;
  }
  const line = look.lines[spots.line[spot]!]!;
  const rgb = module.rgb().subarray(3 * spot, 3 * spot + 3);
  return {
    name: spots.nameOf(spot),
    line: line.name,
    order: line.order,
    address: spots.address[spot]!,
    touches,
    light: module.lightWithout(spot, () => false),
    master: module.read(module.places.master),
    rgb: [rgb[0]!, rgb[1]!, rgb[2]!],
  };
}

function factsOf(module: Module, layer: Layer, place: number, spot: number): [string, string][] {
  const told = module.tell(layer.number, place, spot);
  const facts: [string, string][] = [];
  const colour = lightOf(told, "colour");
  if (colour) facts.push(["shows", hexOf(colour)]);
  const share = told("share");
  if (share !== undefined) facts.push(["covers", percent(share)]);
  const level = told("level");
  if (level !== undefined) facts.push(["level", percent(level)]);
  for (const [key, text] of Object.entries(layer.written)) {
    const name = `parameter:${key}`;
    const value = lightOf(told, name);
    const number = told(name);
    if (value) facts.push([key, hexOf(value)]);
    else if (number !== undefined && key !== "level") {
      const shown = numberText(number);
      facts.push([key, shown === text ? shown : `${shown} (${text})`]);
    }
  }
  return facts;
}
