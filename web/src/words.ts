/** Numbers and colours as people read them. */

import type { Light } from "./module";

export function numberText(value: number): string {
  if (Math.abs(value) < 1e-6) return "0";
  const text = value.toPrecision(Math.abs(value) >= 100 ? 4 : 3);
  return text.includes("e") ? text : String(Number(text));
}

export function hexOf(light: Light): string {
  const byte = (value: number): string => {
    const held = Math.min(Math.max(value, 0), 1);
    const level = held <= 0.0031308 ? held * 12.92 : 1.055 * held ** (1 / 2.4) - 0.055;
    return Math.round(level * 255).toString(16).padStart(2, "0");
  };
  return `#${light.map(byte).join("")}`;
}

export function timeText(seconds: number): string {
  const minutes = Math.floor(seconds / 60);
  return minutes > 0 ? `${minutes}:${(seconds % 60).toFixed(2).padStart(5, "0")}` : `${seconds.toFixed(2)} s`;
}

export const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** How long something lasts. */
export function spanText(seconds: number): string {
  if (seconds < 90) return `${seconds.toFixed(0)} s`;
  return seconds < 5400 ? `${(seconds / 60).toFixed(0)} min` : `${(seconds / 3600).toFixed(1)} h`;
}

/** How long ago something was. */
export function ageText(seconds: number): string {
  return seconds < 1 ? "now" : `${spanText(seconds)} ago`;
}
