import { expect, it } from "vitest";
import { fromAddress, toAddress, type Shown } from "../src/address";

const shown: Shown = {
  time: 12.34, speed: 0.5, view: "-35,38,1.2", wires: true, names: false, addresses: true, led: 7,
  deeds: [
    { at: 1.5, signal: "speed", what: "set", values: [12.25] },
    { at: 2, signal: "hit", what: "set", values: [1, -30.5, 4, 0] },
    { at: 3, signal: "speed", what: "lost", values: [] },
    { at: 4, signal: "speed", what: "free", values: [] },
  ],
};

it("a link shows the same moment", () => {
  expect(fromAddress(`#${toAddress(shown)}`)).toEqual(shown);
});

it("what is no address is left out, and nothing else", () => {
  const found = fromAddress("#t=abc&speed=99&led=-1&do=1~s~a~x&do=2~z~a~1&do=2~s~ok~1&view=left");
  expect(found).toEqual({
    view: "left", wires: false, names: false, addresses: false,
    deeds: [{ at: 2, signal: "ok", what: "set", values: [1] }],
  });
});
