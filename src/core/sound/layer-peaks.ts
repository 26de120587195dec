import type { Value } from '../base/value';
import { sourceFrameAt } from '../time/speed';
import { steadyAt } from '../time/values';

interface Sounding {
  /** frames of the shot */
  length: number;
  time: { offset: number; speed: Value<number> };
  gain: Value<number>;
}

/**
 * What of a clip's peaks is heard along a layer: through its speed, backwards too, and at its level.
 * @param peaks of equal parts of the whole clip, 0…1 @param frames how long the clip is, in frames of the shot @param bins parts of the layer
 * @returns a peak for each part, 0…1
 */
export function layerPeaks(
  peaks: readonly number[],
  frames: number,
  { length, time, gain }: Sounding,
  bins: number,
): number[] {
  const at = Array.from(
    { length: bins + 1 },
    (_, i) => (sourceFrameAt(time, (i / bins) * length) / frames) * peaks.length,
  );
  return Array.from({ length: bins }, (_, i) => {
    const [from, to] = [Math.min(at[i]!, at[i + 1]!), Math.max(at[i]!, at[i + 1]!)];
    let peak = 0;
    // standing still is silent
    for (let k = Math.floor(from); to > from && k < to; k++) peak = Math.max(peak, peaks[k] ?? 0);
    return Math.min(1, peak * steadyAt(gain, ((i + 0.5) / bins) * length));
  });
}
