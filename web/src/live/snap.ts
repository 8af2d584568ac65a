/** Snapping: where something lands that is dragged along one axis. */

/**
 * By how much it moves. It lands on one of the lines where it comes near, else on the steps of a grid.
 *
 * start: where it stood. step: of the grid, 0 for none. near: how near a line draws it.
 */
export function snapped(start: number, by: number, step: number, lines: readonly number[], near: number): number {
  if (step <= 0) return by;
  const there = start + by;
  let best: number | undefined;
  for (const line of lines) {
    if (Math.abs(line - there) <= near && (best === undefined || Math.abs(line - there) < Math.abs(best - there))) best = line;
  }
  return best === undefined ? Math.round(by / step) * step : best - start;
}
