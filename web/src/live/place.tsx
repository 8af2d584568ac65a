/** The map: parts dragged and turned where they really are, LEDs chosen by a frame drawn round them. */

import { useEffect, useMemo, useRef, useState } from "preact/hooks";
import { floatsOf, wordsOf } from "../bytes";
import type { PlacedPart } from "../data";
import { LINES } from "../space/labels";
import type { Desk } from "./desk";
import type { LivePicture } from "./link";
import { snapped } from "./snap";

const [MARGIN, TURN_STEP] = [0.08, 15];
const ALIGN_PX = 6;
const SETTLE_MS = 1500;

interface Drag {
  kind: "move" | "turn" | "frame" | "pan" | "led" | "draw";
  from: [number, number];
  to: [number, number];
  part?: PlacedPart;
  index?: number;
}

export function Place({ desk, picture }: { desk: Desk; picture: LivePicture }) {
  const svg = useRef<SVGSVGElement>(null);
  const { look, spots } = picture;
  const position = useMemo(() => floatsOf(look.leds.position), [look]);
  const spotOf = useMemo(() => wordsOf(look.leds.spot), [look]);
  const whole = useMemo(() => boxOf(position, look.leds.outline), [look]);
  const [box, setBox] = useState(whole);
  const [drag, setDrag] = useState<Drag>();
  const [room, setRoom] = useState([900, 700] as [number, number]);
  const [pending, setPending] = useState<{ part: string; shift: string }>();
  const unit = look.unit_mm;
  const parts = desk.sheet?.parts ?? [];
  const own = parts.find((each) => each.name === desk.part);
  useEffect(() => setPending(undefined), [look.number]);
  useEffect(() => {
    const measure = (): void => setRoom([svg.current!.clientWidth || 1, svg.current!.clientHeight || 1]);
    const watcher = new ResizeObserver(measure);
    watcher.observe(svg.current!);
    return () => watcher.disconnect();
  }, []);

  const at = (event: PointerEvent | WheelEvent): [number, number] => {
    const shown = svg.current!;
    const seen = new DOMPoint(event.clientX, event.clientY).matrixTransform(shown.getScreenCTM()!.inverse());
    return [seen.x, -seen.y];
  };
  const pxMm = (): number => 1 / (svg.current?.getScreenCTM()?.a ?? 1);
  const partOf = (led: number): PlacedPart | undefined => {
    const spot = spotOf[led]!;
    return parts.find((each) => spot >= each.spots[0]! && spot < each.spots[1]!);
  };
  // The LEDs of each part; they change with the layout, and not with what is dragged or shown.
  const rows = useMemo(() => {
    const found = new Map<PlacedPart | undefined, number[]>();
    for (let i = 0; i < look.leds.count; i++) {
      const part = partOf(i);
      const row = found.get(part);
      if (row) row.push(i);
      else found.set(part, [i]);
    }
    return found;
  }, [look, desk.sheet]);
  const moved = (now: Drag): [number, number] => {
    const by: [number, number] = [now.to[0] - now.from[0], now.to[1] - now.from[1]];
    if (!now.part) return by;
    const middle = now.part.middle;
    const others = parts.filter((each) => each !== now.part && each.is_movable).map((each) => each.middle);
    const lines = (axis: number): number[] => [0, ...others.map((each) => each[axis]! * unit)];
    const near = ALIGN_PX * pxMm();
    return [0, 1].map((axis) => snapped(middle[axis]! * unit, by[axis]!, desk.snap * unit, lines(axis), near)) as [number, number];
  };
  const turn = (now: Drag): number => {
    const [x, y] = [now.part!.middle[0]! * unit, now.part!.middle[1]! * unit];
    const angle = (place: [number, number]): number => (Math.atan2(place[1] - y, place[0] - x) * 180) / Math.PI;
    const by = angle(now.to) - angle(now.from);
    return desk.snap > 0 ? Math.round(by / TURN_STEP) * TURN_STEP : Math.round(by * 10) / 10;
  };
  /** The LEDs that a trail has passed, and the one that it is at now. */
  const passed = (before: readonly number[], [x, y]: [number, number]): readonly number[] => {
    let [best, nearest] = [-1, Math.max(1.2 * look.leds.spacing_mm, 8 * pxMm())];
    for (let i = 0; i < spotOf.length; i++) {
      const far = Math.hypot(position[3 * i]! - x, position[3 * i + 1]! - y);
      if (spotOf[i]! < look.spots.count && far < nearest) [best, nearest] = [spotOf[i]!, far];
    }
    return best < 0 || before.includes(best) ? before : [...before, best];
  };
  const down = (event: PointerEvent): void => {
    const target = event.target as SVGElement;
    const led = target.dataset["led"];
    const from = at(event);
    svg.current!.setPointerCapture(event.pointerId);
    if (event.shiftKey || event.button === 1) setDrag({ kind: "pan", from, to: from });
    else if (desk.isDrawing) {
      desk.draw(passed([], from));
      setDrag({ kind: "draw", from, to: from });
    } else if (target.dataset["turn"] && own) setDrag({ kind: "turn", from, to: from, part: own });
    else if (led !== undefined) {
      const part = partOf(Number(led));
      const index = part ? spotOf[Number(led)]! - part.spots[0]! : 0;
      desk.choose(part?.name ?? "", desk.single ? [spotOf[Number(led)]!] : []);
      if (part?.is_movable) setDrag({ kind: desk.single && part.shape === "points" ? "led" : "move", from, to: from, part, index });
    } else setDrag({ kind: "frame", from, to: from });
  };
  const move = (event: PointerEvent): void => {
    if (!drag) return;
    const to = at(event);
    if (drag.kind === "pan") {
      setBox(([x, y, w, h]) => [x - (to[0] - drag.from[0]), y + (to[1] - drag.from[1]), w, h]);
      return;
    }
    if (drag.kind === "draw") desk.draw(passed(desk.drawn, to));
    setDrag({ ...drag, to });
  };
  const up = (): void => {
    const now = drag;
    setDrag(undefined);
    if (!now) return;
    const isFar = Math.hypot(now.to[0] - now.from[0], now.to[1] - now.from[1]) > 3 * pxMm();
    if (now.kind === "frame") {
      const [x0, x1] = [Math.min(now.from[0], now.to[0]), Math.max(now.from[0], now.to[0])];
      const [y0, y1] = [Math.min(now.from[1], now.to[1]), Math.max(now.from[1], now.to[1])];
      const inside = isFar
        ? [...spotOf].filter((spot, i) => spot < look.spots.count && position[3 * i]! >= x0 && position[3 * i]! <= x1 && position[3 * i + 1]! >= y0 && position[3 * i + 1]! <= y1)
        : [];
      desk.choose("", inside);
      return;
    }
    if (!isFar || !now.part) return;
    const round = (value: number): number => Math.round((value / unit) * 1000) / 1000;
    const part = now.part.name;
    if (now.kind === "turn") {
      const degrees = turn(now);
      if (degrees === 0) return;
      setPending({ part, shift: turnText(now.part, degrees, unit) });
      void desk.edit({ do: "turn", part, degrees }).then(done);
    } else if (now.kind === "move" || now.kind === "led") {
      const by = moved(now);
      const text = [round(by[0]), round(by[1]), 0];
      if (text[0] === 0 && text[1] === 0) return;
      if (now.kind === "move") setPending({ part, shift: `translate(${by[0]} ${by[1]})` });
      const edit = now.kind === "move" ? { do: "move", part, by: text } : { do: "led", part, index: now.index, by: text };
      void desk.edit(edit).then(done);
    }
  };
  const done = (isDone: boolean): void => {
    if (!isDone) setPending(undefined);
    else window.setTimeout(() => setPending(undefined), SETTLE_MS);
  };
  const zoom = (event: WheelEvent): void => {
    event.preventDefault();
    const [x, y] = at(event);
    const by = Math.exp(event.deltaY / 600);
    setBox(([left, top, w, h]) => [x - (x - left) * by, -y - (-y - top) * by, w * by, h * by]);
  };
  const nudge = (event: KeyboardEvent): void => {
    const steps: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
    const step = steps[event.key];
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z") {
      event.preventDefault();
      void (event.shiftKey ? desk.redo() : desk.undo());
    } else if (step && own?.is_movable) {
      event.preventDefault();
      const by = desk.snap || 1;
      void desk.edit({ do: "move", part: own.name, by: [step[0] * by, step[1] * by, 0] });
    } else if (event.key === "Escape") desk.choose("");
  };
  const shiftOf = (part: PlacedPart | undefined): string | undefined => {
    if (drag?.part && part === drag.part) {
      if (drag.kind === "move") return `translate(${moved(drag).join(" ")})`;
      if (drag.kind === "turn") return turnText(part, turn(drag), unit);
    }
    return part && pending?.part === part.name ? pending.shift : undefined;
  };
  const radius = Math.max(look.leds.spacing_mm * 0.34, box[2] / 600);
  const rgb = picture.seen();
  const placeOf = (spot: number): string => {
    const i = spotOf.indexOf(spot);
    return `${position[3 * i]},${position[3 * i + 1]}`;
  };
  const warned = new Set(
    parts.filter((part) => desk.sheet?.findings.some((each) => each.severity !== "note" && part.path.every((step, i) => each.path[i] === step))),
  );
  const spotBox = own ? boxOfSpots(own, position, spotOf) : undefined;
  // A pixel of the screen, in mm: what is written and drawn over the map is as large at every size.
  const pixel = Math.max(box[2] / room[0], box[3] / room[1]);
  const line = 1.6 * pixel;
  return (
    <svg ref={svg} class="map" viewBox={box.join(" ")} preserveAspectRatio="xMidYMid meet" tabIndex={0} role="application"
      aria-label="The map from above. Drag a part to move it, its handle to turn it; arrow keys move the chosen part; drag across empty space to choose LEDs."
      onPointerDown={down} onPointerMove={move} onPointerUp={up} onPointerCancel={() => setDrag(undefined)} onWheel={zoom} onKeyDown={nudge}>
      {desk.photo && (
        <image href={desk.photo.address} x={desk.photo.x * unit - (desk.photo.width * unit) / 2} y={-desk.photo.y * unit}
          width={desk.photo.width * unit} opacity={desk.photo.opacity} style={{ pointerEvents: "none", transform: "translateY(-50%)", transformBox: "fill-box" }} />
      )}
      <g transform="scale(1 -1)">
        <path class="axes" d={`M${box[0]} 0h${box[2]}M0 ${-box[1] - box[3]}v${box[3]}`} stroke-width={line / 2} />
        {look.leds.outline.map((points, i) => (
          <polyline key={i} class="outline" stroke-width={line} points={points.map((place) => place.join(",")).join(" ")} />
        ))}
        {[...rows].map(([part, leds]) => (
          <g key={part?.name ?? "?"} transform={shiftOf(part)} class={part?.name === desk.part && desk.part ? "part own" : part?.is_movable ? "part" : "part fixed"}>
            {leds.map((i) => {
              const spot = spotOf[i]!;
              const isIn = spot < look.spots.count;
              const lit = isIn ? litOf(rgb, spot) : "#000";
              return (
                <circle key={i} data-led={i} cx={position[3 * i]} cy={position[3 * i + 1]} r={radius} fill={lit}
                  stroke={desk.chosen.has(spot) ? "#ffffff" : isIn ? LINES[spots.line[spot]! % LINES.length] : "#555"}
                  stroke-width={desk.chosen.has(spot) ? 2.6 * line : line} />
              );
            })}
          </g>
        ))}
        {own && spotBox && (
          <g transform={shiftOf(own)} class="handle">
            <rect x={spotBox[0] - 2 * radius} y={spotBox[1] - 2 * radius} width={spotBox[2] + 4 * radius} height={spotBox[3] + 4 * radius}
              stroke-width={line} stroke-dasharray={`${4 * line} ${4 * line}`} />
            {own.is_movable && (
              <circle data-turn="1" cx={spotBox[0] + spotBox[2] / 2} cy={spotBox[1] + spotBox[3] + 2 * radius + 14 * line} r={6 * line}>
                <title>turn it</title>
              </circle>
            )}
          </g>
        )}
        {desk.drawn.length > 0 && (
          <polyline class="drawn" stroke-width={2 * line} points={desk.drawn.map((spot) => placeOf(spot)).join(" ")} />
        )}
        {drag?.kind === "frame" && (
          <rect class="frame" x={Math.min(drag.from[0], drag.to[0])} y={Math.min(drag.from[1], drag.to[1])}
            width={Math.abs(drag.to[0] - drag.from[0])} height={Math.abs(drag.to[1] - drag.from[1])} stroke-width={line} />
        )}
      </g>
      {parts.filter((part) => part.spots[1]! > part.spots[0]! && part !== drag?.part).map((part) => (
        <text key={part.name} class={`${part.name === desk.part ? "own" : ""} ${warned.has(part) ? "warned" : ""}`} font-size={12 * pixel} text-anchor="middle"
          x={part.middle[0]! * unit} y={-part.middle[1]! * unit - 5 * pixel}>
          {part.name}{warned.has(part) ? " ⚠" : ""}
        </text>
      ))}
      {drag && (drag.kind === "move" || drag.kind === "turn") && (
        <text class="by" font-size={15 * pixel} x={drag.to[0] + 14 * line} y={-drag.to[1] - 8 * line}>
          {drag.kind === "turn" ? `${turn(drag)}°` : moved(drag).map((by) => (Math.round((by / unit) * 100) / 100).toString()).join(", ")}
        </text>
      )}
    </svg>
  );
}

function turnText(part: PlacedPart, degrees: number, unit: number): string {
  return `rotate(${degrees} ${part.middle[0]! * unit} ${part.middle[1]! * unit})`;
}

function litOf(rgb: Uint8Array, spot: number): string {
  const byte = (c: number): number => Math.round(255 * ((rgb[3 * spot + c] ?? 0) / 255) ** (1 / 2.2));
  return `rgb(${Math.max(byte(0), 24)} ${Math.max(byte(1), 28)} ${Math.max(byte(2), 36)})`;
}

function boxOf(position: Float32Array, outline: readonly number[][][]): [number, number, number, number] {
  const places = outline.flat();
  const xs = [...everyThird(position, 0), ...places.map((place) => place[0]!)];
  const ys = [...everyThird(position, 1), ...places.map((place) => place[1]!)];
  const [left, right] = [Math.min(...xs, 0), Math.max(...xs, 1)];
  const [low, high] = [Math.min(...ys, 0), Math.max(...ys, 1)];
  const room = MARGIN * Math.max(right - left, high - low, 20);
  return [left - room, -high - room, right - left + 2 * room, high - low + 2 * room];
}

function boxOfSpots(part: PlacedPart, position: Float32Array, spotOf: Uint32Array): [number, number, number, number] | undefined {
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i < spotOf.length; i++) {
    if (spotOf[i]! < part.spots[0]! || spotOf[i]! >= part.spots[1]!) continue;
    left = Math.min(left, position[3 * i]!);
    right = Math.max(right, position[3 * i]!);
    low = Math.min(low, position[3 * i + 1]!);
    high = Math.max(high, position[3 * i + 1]!);
  }
  return Number.isFinite(left) ? [left, low, right - left, high - low] : undefined;
}

function* everyThird(values: Float32Array, from: number): Generator<number> {
  for (let i = from; i < values.length; i += 3) yield values[i]!;
}
