/** What is written over the picture: the way of the wires, names of parts, addresses, the chosen LED. */

import type { Shown, Spots } from "../spots";
import type { Space } from "./space";

/** The colours of data lines, as on the maps. */
export const LINES = ["#4cc3ff", "#ffb454", "#9ee06a", "#ff7ac6", "#b79cff", "#ffe066"];
const ROOM_PX = 46;

export interface Wanted {
  wires: boolean;
  names: boolean;
  addresses: boolean;
  led: number | undefined;
}

export class Labels {
  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly look: Shown,
    private readonly spots: Spots,
  ) {}

  draw(space: Space, wanted: Wanted, width: number, height: number, ratio: number): void {
    const { canvas } = this;
    if (canvas.width !== Math.round(width * ratio) || canvas.height !== Math.round(height * ratio)) {
      canvas.width = Math.round(width * ratio);
      canvas.height = Math.round(height * ratio);
    }
    const pen = canvas.getContext("2d");
    if (!pen) return;
    pen.setTransform(ratio, 0, 0, ratio, 0, 0);
    pen.clearRect(0, 0, width, height);
    pen.font = "12px system-ui, sans-serif";
    const at = (index: number): [number, number] | undefined => {
      const place = space.project(index);
      return place && [place[0] * width, place[1] * height];
    };
    if (wanted.wires) this.wires(pen, space, at);
    if (wanted.addresses) this.addresses(pen, space, at);
    if (wanted.names) this.names(pen, space, at);
    const chosen = wanted.led === undefined ? undefined : at(wanted.led);
    if (chosen) {
      pen.strokeStyle = "#e4e8ef";
      pen.lineWidth = 2;
      pen.beginPath();
      pen.arc(chosen[0], chosen[1], 13, 0, 2 * Math.PI);
      pen.stroke();
    }
  }

  private wires(pen: CanvasRenderingContext2D, space: Space, at: (i: number) => [number, number] | undefined): void {
    pen.lineWidth = 1.5;
    let before: number | undefined;
    for (let i = 0; i < space.spot.length; i++) {
      const line = this.spots.line[space.spot[i]!];
      if (line === undefined) continue;
      const to = at(i);
      const from = before === undefined ? undefined : at(before);
      if (before !== undefined && this.spots.line[space.spot[before]!] === line && from && to) {
        pen.strokeStyle = LINES[line % LINES.length]!;
        pen.globalAlpha = 0.75;
        pen.beginPath();
        pen.moveTo(...from);
        pen.lineTo(...to);
        pen.stroke();
      } else if (to) {
        pen.globalAlpha = 1;
        pen.fillStyle = LINES[line % LINES.length]!;
        pen.fillRect(to[0] - 4, to[1] - 4, 8, 8);
        write(pen, this.look.lines[line]?.name ?? "", to[0] + 8, to[1] - 8);
      }
      before = i;
    }
    pen.globalAlpha = 1;
  }

  private names(pen: CanvasRenderingContext2D, space: Space, at: (i: number) => [number, number] | undefined): void {
    const sums = new Map<number, [number, number, number]>();
    for (let i = 0; i < space.spot.length; i++) {
      const part = this.spots.part[space.spot[i]!];
      const place = part === undefined ? undefined : at(i);
      if (part === undefined || !place) continue;
      const [x, y, count] = sums.get(part) ?? [0, 0, 0];
      sums.set(part, [x + place[0], y + place[1], count + 1]);
    }
    pen.textAlign = "center";
    for (const [part, [x, y, count]] of sums) {
      pen.fillStyle = "#e4e8ef";
      write(pen, this.look.parts[part] ?? "", x / count, y / count - 14);
    }
    pen.textAlign = "start";
  }

  private addresses(pen: CanvasRenderingContext2D, space: Space, at: (i: number) => [number, number] | undefined): void {
    const taken: [number, number][] = [];
    pen.fillStyle = "#aab3c2";
    for (let i = 0; i < space.spot.length; i++) {
      const address = this.spots.address[space.spot[i]!];
      const place = address === undefined ? undefined : at(i);
      if (address === undefined || !place || taken.length > 400) continue;
      if (taken.some(([x, y]) => Math.hypot(x - place[0], y - place[1]) < ROOM_PX)) continue;
      taken.push(place);
      write(pen, String(address), place[0] + 8, place[1] + 16);
    }
  }
}

function write(pen: CanvasRenderingContext2D, text: string, x: number, y: number): void {
  pen.strokeStyle = "#0c0e13";
  pen.lineWidth = 3;
  pen.strokeText(text, x, y);
  pen.fillText(text, x, y);
}
