/** What the page of a run works out by itself: where things land, what is chosen, what may be written. */

import { describe, expect, it } from "vitest";
import { completions, type Schema, tableAt } from "../src/live/complete";
import { asChoice, asTrail } from "../src/live/desk";
import { difference } from "../src/live/difference";
import { snapped } from "../src/live/snap";
import { ageText } from "../src/words";

describe("snapped", () => {
  it("goes in steps of the grid, counted from where it stood", () => {
    expect(snapped(3, 11, 5, [], 2)).toBe(10);
    expect(snapped(3, -13, 5, [], 2)).toBe(-15);
  });
  it("lands on the nearest line that is near", () => {
    expect(snapped(3, 11, 5, [0, 12.5, 16], 2)).toBe(9.5);
    expect(snapped(3, 11, 5, [0, 17], 2)).toBe(10);
  });
  it("goes freely where nothing is to be snapped to", () => {
    expect(snapped(3, 11.25, 0, [14], 50)).toBe(11.25);
  });
});

describe("asChoice", () => {
  const parts = ["bar", "bar", "bar", "bar", "far", "far"];
  it("writes rows of places, part by part", () => {
    const chosen = asChoice([5, 0, 3, 1], (spot) => parts[spot]!, (spot) => (spot < 4 ? spot : spot - 4));
    expect(chosen).toEqual(["far[1]", "bar[0-1]", "bar[3]"]);
  });
});

describe("asTrail", () => {
  it("keeps the order, and runs backwards where it was drawn so", () => {
    const part = (spot: number): string => (spot < 10 ? "bar" : "far");
    const index = (spot: number): number => spot % 10;
    expect(asTrail([4, 3, 2, 12, 13, 14, 19, 0], part, index)).toEqual(["-bar[2-4]", "far[2-4]", "far[9]", "bar[0]"]);
    expect(asTrail([1, 2, 1], part, index)).toEqual(["bar[1-2]", "bar[1]"]);
    expect(asTrail([], part, index)).toEqual([]);
  });
});

const texts = { "x-taplo": { docs: { enumValues: ["On and off.", "A head with a tail."] } } };
const effect: Schema = {
  type: "string",
  description: "what it shows\n\n- `blink`: On and off.\n- `comet`: A head with a tail.",
  anyOf: [{ enum: ["blink", "comet"], ...texts }, true],
};

const schema: Schema = {
  properties: {
    rate: { type: "number", description: "frames a second" },
    signals: { additionalProperties: { $ref: "#/$defs/Signal" } },
    layer: { type: "array", items: { $ref: "#/$defs/Layer" } },
    leaving: { enum: ["dark", "keep"] },
  },
  $defs: {
    Signal: { properties: { kind: { enum: ["number", "switch"] }, range: {}, lost_after: {} } },
    Layer: {
      properties: { name: {}, effect, when: { type: ["boolean", "string"] } },
      if: { properties: { effect: { const: "solid" } } },
      then: { propertyNames: { enum: ["name", "effect"] } },
      else: {
        if: { properties: { effect: { const: "blink" } } },
        then: { properties: { duty: {}, calm: { type: "boolean" } }, propertyNames: { enum: ["name", "effect", "duty", "calm"] } },
      },
    },
  },
};

function found(text: string, isAsked = false): string[] | undefined {
  return completions(text, text.length, schema, isAsked)?.options.map((option) => option.label);
}

describe("completions", () => {
  it("knows the table that a place is in", () => {
    expect(tableAt("[a]\nx = 1\n[[line.part]]\nname")).toEqual(["line", "part"]);
    expect(tableAt("rate = 1\n")).toEqual([]);
  });
  it("names the keys of the table, and none in a comment", () => {
    expect(found("ra")).toEqual(["rate", "signals", "layer", "leaving"]);
    expect(found("[signals.speed]\nra")).toEqual(["kind", "range", "lost_after"]);
    expect(found("[[layer]]\nna")).toEqual(["name", "effect", "when"]);
    expect(found("# ra")).toBeUndefined();
    expect(found("")).toBeUndefined();
    expect(found("", true)).toContain("rate");
  });
  it("names the values of a key, in quotes where they need them", () => {
    expect(found("leaving = ")).toEqual(['"dark"', '"keep"']);
    expect(found('[signals.a]\nkind = "sw')).toEqual(["number", "switch"]);
    expect(found("[[layer]]\nwhen = t")).toEqual(["true", "false"]);
    expect(found("rate = 5")).toBeUndefined();
  });
  it("names the parameters of the effect that the table has, before and after the place", () => {
    expect(found('[[layer]]\neffect = "blink"\ndu')).toEqual(["name", "effect", "duty", "calm"]);
    expect(found('[[layer]]\neffect = "solid"\ndu')).toEqual(["name", "effect"]);
    expect(found('[[layer]]\neffect = "comet"\ndu')).toEqual(["name", "effect", "when"]);
    expect(found('[[layer]]\neffect = "blink"\ncalm = ')).toEqual(["true", "false"]);
    const text = '[[layer]]\ndu\neffect = "blink"\n[[layer]]\n';
    expect(completions(text, text.indexOf("\neffect"), schema, true)?.options.map((one) => one.label)).toContain("duty");
    expect(found('[[layer]]\neffect = "')).toEqual(["blink", "comet"]);
  });
  it("says what a key means, and each of its words", () => {
    const infos = (text: string): [string, string | undefined][] =>
      completions(text, text.length, schema, true)?.options.map((one) => [one.label, one.info]) ?? [];
    expect(infos("[[layer]]\n")).toContainEqual(["effect", "what it shows"]);
    expect(infos('[[layer]]\neffect = "')).toEqual([["blink", "On and off."], ["comet", "A head with a tail."]]);
    expect(infos("[[layer]]\nwhen = ")).toEqual([["true", undefined], ["false", undefined]]);
  });
  it("names tables", () => {
    expect(found("[si")).toEqual(["signals", "layer"]);
  });
});

describe("difference", () => {
  it("is the one piece that changed", () => {
    expect(difference("level = 0.9\n", "level = 0.5\n")).toEqual({ from: 10, to: 11, insert: "5" });
    expect(difference("aaa", "aa")).toEqual({ from: 2, to: 3, insert: "" });
    expect(difference("", "x")).toEqual({ from: 0, to: 0, insert: "x" });
    expect(difference("same", "same")).toEqual({ from: 4, to: 4, insert: "" });
  });
});

describe("ageText", () => {
  it("says how long ago in the unit that fits", () => {
    expect([0.2, 5, 200, 7200].map(ageText)).toEqual(["now", "5 s ago", "3 min ago", "2.0 h ago"]);
  });
});
