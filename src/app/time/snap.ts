import type { KeyRef } from '../../core/document/edits/keys';
import type { LayerId, Shot } from '../../core/document/schema';
import { entriesOf, valueIn } from '../../core/document/edits/values';
import { keysOf } from '../../core/base/value';

/** Nearest of some frames to a frame, when it is within reach. @param reach in frames */
export function snapped(frame: number, targets: readonly number[], reach: number): number | null {
  let best: number | null = null;
  for (const target of targets) {
    if (Math.abs(target - frame) <= reach && (best === null || Math.abs(target - frame) < Math.abs(best - frame)))
      best = target;
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

/** Frames that things in a shot snap to: its ends, the playhead, markers, the range, and the ends and keyframes of layers. */
export function snapTargets(
  shot: Shot,
  playhead: number,
  {
    layer,
    without = [],
  }: { /** not this layer's own ends and keyframes */ layer?: LayerId; without?: readonly KeyRef[] },
): number[] {
  const moving = new Set(without.map((key) => `${key.layer} ${key.path} ${key.at}`));
  const out = [
    0,
    shot.length,
    playhead,
    ...shot.markers.map((marker) => marker.at),
    ...(shot.range ? [shot.range.from, shot.range.to] : []),
  ];
  for (const other of shot.layers) {
    if (other.id === layer) continue;
    const { start, length } = other.span;
    out.push(start, start + length);
    for (const { path } of entriesOf(other)) {
      for (const key of keysOf(valueIn(other, path) ?? { still: 0 }))
        if (!moving.has(`${other.id} ${path} ${key.at}`)) out.push(key.at + start);
    }
  }
  return out;
}
