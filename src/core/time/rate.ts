/** An exact frame rate: num / den frames in a second. */
export interface FrameRate {
  num: number;
  den: number;
}

/** The rates a shot can have; the broadcast ones are exact fractions. */
export const FRAME_RATES: readonly { label: string; rate: FrameRate }[] = [
  { label: '23.976', rate: { num: 24000, den: 1001 } },
  { label: '24', rate: { num: 24, den: 1 } },
  { label: '25', rate: { num: 25, den: 1 } },
  { label: '29.97', rate: { num: 30000, den: 1001 } },
  { label: '30', rate: { num: 30, den: 1 } },
  { label: '48', rate: { num: 48, den: 1 } },
  { label: '50', rate: { num: 50, den: 1 } },
  { label: '59.94', rate: { num: 60000, den: 1001 } },
  { label: '60', rate: { num: 60, den: 1 } },
];

export function sameRate(a: FrameRate, b: FrameRate): boolean {
  return a.num * b.den === b.num * a.den;
}

/** Start of a frame in seconds. */
export function secondsAt(frame: number, rate: FrameRate): number {
  return (frame * rate.den) / rate.num;
}

/** The frame that is showing at a time in seconds. Times a rounding error short of a frame's start count as that frame. */
export function frameAt(seconds: number, rate: FrameRate): number {
  return Math.floor((seconds * rate.num) / rate.den + 1e-6);
}

/** Frames that a duration in seconds fills, at least one. */
export function framesIn(seconds: number, rate: FrameRate): number {
  return Math.max(1, Math.round((seconds * rate.num) / rate.den));
}

export function rateLabel(rate: FrameRate): string {
  const known = FRAME_RATES.find((entry) => sameRate(entry.rate, rate));
  return known ? known.label : String(Math.round((rate.num / rate.den) * 1000) / 1000);
}

/**
 * The exact rate behind measured frame times.
 * @param stamps presentation times in seconds, ascending; rounding of up to a millisecond is expected (WebM)
 * @returns the standard rate, or a whole-millihertz fraction, or null when the spacing varies
 */
export function rateFromStamps(stamps: readonly number[]): FrameRate | null {
  if (stamps.length < 2) return null;
  const first = stamps[0]!;
  const mean = (stamps[stamps.length - 1]! - first) / (stamps.length - 1);
  if (!(mean > 0)) return null;
  const even = stamps.every((stamp, i) => Math.abs(stamp - first - i * mean) <= 0.0021);
  if (!even) return null;
  // a millisecond of rounding at both ends bounds how well the mean can be known
  const tolerance = Math.max(0.0002, 0.0011 / ((stamps.length - 1) * mean));
  const fps = 1 / mean;
  const ranked = FRAME_RATES.map(({ rate }) => ({ rate, off: Math.abs(rate.num / rate.den / fps - 1) })).sort(
    (a, b) => a.off - b.off,
  );
  const nearest = ranked.filter((entry) => entry.off <= tolerance);
  // where two standard rates are within the error, the whole-numbered one is likelier
  const chosen = nearest.find((entry) => entry.rate.den === 1) ?? nearest[0];
  return chosen ? chosen.rate : { num: Math.round(fps * 1000), den: 1000 };
}

/** How far into the next frame a source is looked up, in seconds: containers round time stamps to whole milliseconds. */
export const STAMP_ROUNDING = 0.001;
