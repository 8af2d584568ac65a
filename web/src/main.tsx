/** Starts the page: reads what the file holds, runs it, and says what is wrong in a sentence. */

import { render } from "preact";
import { fromAddress } from "./address";
import type { PageData } from "./data";
import { Player } from "./player";
import "./style.css";
import { App } from "./ui/app";

async function start(into: HTMLElement): Promise<void> {
  if (typeof WebAssembly !== "object") {
    throw new Error("This browser has no WebAssembly, which the page needs. Use a newer browser, or allow it.");
  }
  const data = JSON.parse(document.getElementById("data")?.textContent ?? "") as PageData;
  const shown = fromAddress(location.hash);
  const names = new Set(data.looks.flatMap((look) => look.signals.map((signal) => signal.name)));
  const player = await Player.start(data, (shown.deeds ?? []).filter((deed) => names.has(deed.signal)));
  player.speed = shown.speed ?? 1;
  Object.assign(globalThis, { fendra: player });
  into.replaceChildren();
  render(<App data={data} player={player} start={shown} />, into);
  const isStill = window.matchMedia("(prefers-reduced-motion: reduce)").matches;
  if (!isStill && shown.time === undefined) player.play(true);
}

const page = document.getElementById("page")!;
start(page).catch((error: unknown) => {
  const sentence = document.createElement("p");
  sentence.className = "sentence";
  const why = error instanceof Error ? error.message : String(error);
  sentence.textContent = error instanceof SyntaxError ? "The design in this page is damaged. Make the page again with `fendra page`." : why;
  page.replaceChildren(sentence);
});
