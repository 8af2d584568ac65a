/** What is shown, kept in the page's address, so that a link shows the same moment. */

import type { Deed } from "./run";

export interface Shown {
  time: number;
  speed: number;
  view: string;
  wires: boolean;
  names: boolean;
  addresses: boolean;
  led: number | undefined;
  deeds: Deed[];
}

const WHATS = { s: "set", l: "lost", f: "free" } as const;
const LONGEST = 6000;

export function toAddress(shown: Shown): string {
  const keys = new URLSearchParams();
  keys.set("t", shown.time.toFixed(3));
  if (shown.speed !== 1) keys.set("speed", String(shown.speed));
  keys.set("view", shown.view);
  const on = (["wires", "names", "addresses"] as const).filter((key) => shown[key]);
  if (on.length > 0) keys.set("show", on.join(","));
  if (shown.led !== undefined) keys.set("led", String(shown.led));
  for (const deed of shown.deeds) {
    const values = deed.values.map((value) => String(Number(value.toPrecision(9))));
    keys.append("do", [deed.at.toFixed(3), deed.what[0], deed.signal, ...values].join("~"));
  }
  const text = keys.toString();
  return text.length > LONGEST ? "" : text;
}

export function fromAddress(text: string): Partial<Shown> {
  const keys = new URLSearchParams(text.replace(/^#/, ""));
  const shown: Partial<Shown> = {};
  const time = numberOf(keys.get("t"));
  if (time !== undefined) shown.time = time;
  const speed = numberOf(keys.get("speed"));
  if (speed !== undefined && speed > 0 && speed <= 8) shown.speed = speed;
  const view = keys.get("view");
  if (view) shown.view = view;
  const on = (keys.get("show") ?? "").split(",");
  for (const key of ["wires", "names", "addresses"] as const) shown[key] = on.includes(key);
  const led = numberOf(keys.get("led"));
  if (led !== undefined && led >= 0) shown.led = Math.floor(led);
  shown.deeds = keys.getAll("do").flatMap((item) => {
    const [at, what, signal, ...rest] = item.split("~");
    const values = rest.map(Number);
    const seconds = numberOf(at ?? null);
    const kind = WHATS[what as keyof typeof WHATS] as Deed["what"] | undefined;
    if (seconds === undefined || !kind || !signal || values.some((value) => !Number.isFinite(value))) return [];
    return [{ at: seconds, signal, what: kind, values }];
  });
  return shown;
}

function numberOf(text: string | null): number | undefined {
  const value = text === null || text === "" ? NaN : Number(text);
  return Number.isFinite(value) ? value : undefined;
}
