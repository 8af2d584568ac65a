/** The link to a run: its frames and its state come in, what hands want goes out. */

import type { Hello, LiveLook, State } from "../data";
import { brightness, FlashGuard } from "../guard";
import { Spots } from "../spots";
import type { Picture, Showing } from "../ui/view";

const HEAD_BYTES = 12;
const [FIRST_WAIT_MS, LONGEST_WAIT_MS] = [250, 2000];
const EVERY_MS = 33;
/** After so many messages the run is told that they have come; it sends no more than three times as many ahead. */
const TOLD_EVERY = 4;
const REFUSED = [4401, 4403, 4421, 4429];
const KEPT = "fendra-token";

export type Status = "joining" | "open" | "lost" | "refused";

/** The token of this page: of its address, from where it is taken out, or what was kept of it. */
export function tokenOf(address: Location, kept: Pick<Storage, "getItem" | "setItem">): string {
  const given = new URLSearchParams(address.hash.slice(1)).get("token");
  if (given) {
    kept.setItem(KEPT, given);
    history.replaceState(null, "", address.pathname);
  }
  return given ?? kept.getItem(KEPT) ?? "";
}

/** The frames of one look, as they come. */
export class LivePicture implements Picture {
  readonly spots: Spots;
  made = 0;
  private rgb: Uint8Array;

  constructor(readonly look: LiveLook) {
    this.spots = new Spots(look);
    this.rgb = new Uint8Array(3 * look.spots.count);
  }

  take(rgb: Uint8Array): void {
    if (rgb.length !== this.rgb.length) return;
    this.rgb = rgb;
    this.made++;
  }

  seen(): Uint8Array {
    return this.rgb;
  }
}

export class Link implements Showing {
  status: Status = "joining";
  why = "";
  hello: Hello | undefined;
  state: State | undefined;
  picture: LivePicture | undefined;
  /** What was refused last, and is shown for a while. */
  problem = "";
  isPlaying = true;
  flashes: Showing["flashes"] = "unasked";
  readonly timing = { draw: [] as number[] };
  /** Frames that have come, in all. */
  frames = 0;
  private socket: WebSocket | undefined;
  private wait = FIRST_WAIT_MS;
  private got = 0;
  private guard = new FlashGuard();
  private readonly listeners = new Set<() => void>();
  private readonly waiting = new Map<string, () => Promise<unknown>>();
  private readonly busy = new Set<string>();

  constructor(private readonly token: string) {}

  onChange(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  tell(): void {
    for (const listener of this.listeners) listener();
  }

  join(): void {
    const scheme = location.protocol === "https:" ? "wss" : "ws";
    const protocols = this.token ? ["fendra", `token.${this.token}`] : ["fendra"];
    const socket = new WebSocket(`${scheme}://${location.host}/live`, protocols);
    socket.binaryType = "arraybuffer";
    this.socket = socket;
    this.got = 0;
    socket.onmessage = ({ data }: MessageEvent<string | ArrayBuffer>) => {
      if (typeof data === "string") this.hear(JSON.parse(data) as Told);
      else this.see(data);
      if (this.got % TOLD_EVERY === 0 && socket.readyState === WebSocket.OPEN) socket.send(String(this.got));
    };
    socket.onclose = ({ code, reason }) => {
      if (this.socket !== socket) return;
      this.isPlaying = false;
      if (REFUSED.includes(code)) {
        this.status = "refused";
        this.why = reason || "This address may not open the page.";
      } else {
        this.status = "lost";
        setTimeout(() => this.join(), this.wait);
        this.wait = Math.min(2 * this.wait, LONGEST_WAIT_MS);
      }
      this.tell();
    };
  }

  /** Ask the run for something. Throws what it answers, if it refuses. */
  async call<T = unknown>(method: string, path: string, body?: unknown): Promise<T> {
    const headers: Record<string, string> = { "Content-Type": "application/json" };
    if (this.token) headers["Authorization"] = `Bearer ${this.token}`;
    const answer = await fetch(path, { method, headers, ...(body === undefined ? {} : { body: JSON.stringify(body) }) });
    const found = (await answer.json()) as { problem?: string };
    if (!answer.ok) throw new Error(found.problem ?? `The run answered ${answer.status}.`);
    return found as T;
  }

  /** The same for what hands do: the newest wish wins, and what is refused is said. */
  steer(method: string, path: string, body?: unknown): void {
    const key = `${method} ${path}`;
    this.waiting.set(key, () => this.call(method, path, body));
    if (!this.busy.has(key)) void this.work(key);
  }

  answer(isShown: boolean): void {
    this.flashes = isShown ? "shown" : "dimmed";
    this.isPlaying = true;
    this.tell();
  }

  private async work(key: string): Promise<void> {
    this.busy.add(key);
    for (let next = this.waiting.get(key); next; next = this.waiting.get(key)) {
      this.waiting.delete(key);
      try {
        await next();
        this.problem = "";
      } catch (error) {
        this.say(error);
      }
      await new Promise((done) => setTimeout(done, EVERY_MS));
    }
    this.busy.delete(key);
  }

  say(error: unknown): void {
    this.problem = error instanceof Error ? error.message : String(error);
    this.tell();
  }

  private hear(told: Told): void {
    if (told.kind === "hello") {
      this.hello = told;
      this.status = "open";
      this.isPlaying = true;
      this.wait = FIRST_WAIT_MS;
      this.tell();
      return;
    }
    this.got++;
    if (told.kind === "look") this.picture = new LivePicture(told);
    else if (told.kind === "state") this.state = told;
    else this.problem = told.text;
    this.tell();
  }

  private see(data: ArrayBuffer): void {
    this.got++;
    const head = new DataView(data);
    if (!this.picture || head.getUint32(0, true) !== this.picture.look.number) return;
    const rgb = new Uint8Array(data, HEAD_BYTES);
    this.picture.take(rgb);
    this.frames++;
    if (this.flashes !== "unasked") return;
    if (this.guard.push(head.getUint32(8, true) / 1000, brightness(rgb))) {
      this.flashes = "asking";
      this.tell();
    }
  }
}

type Told = Hello | LiveLook | State | { kind: "refused"; text: string };
