/** Nearest of some frames to a frame, when it is within reach. @param reach in frames */
export function snapped(frame: number, targets: readonly number[], reach: number): number | null {
  let best: number | null = null;
  for (const target of targets) {
    if (Math.abs(target - frame) <= reach && (best === null || Math.abs(target - frame) < Math.abs(best - frame))) best = target;
  }
  return best;
}

/** Moves a span so that whichever of its ends is nearer to a target meets it. @returns the new start */
export function snappedSpan(start: number, length: number, targets: readonly number[], reach: number): number {
  const byStart = snapped(start, targets, reach);
  const byEnd = snapped(start + length, targets, reach);
  if (byStart === null && byEnd === null) return Math.round(start);
  const startOff = byStart === null ? Infinity : Math.abs(byStart - start);
  const endOff = byEnd === null ? Infinity : Math.abs(byEnd - start - length);
  return startOff <= endOff ? byStart! : byEnd! - length;
}
