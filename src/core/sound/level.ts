import type { Value } from '../base/value';

/** Below this a level counts as silence, in dB. */
export const SILENT = -60;
/** The loudest a level can be set, as a factor, 18 dB. */
export const MOST_GAIN = 8;

/** A factor of loudness in decibels; −∞ for none. */
export const decibels = (gain: number): number => (gain > 0 ? 20 * Math.log10(gain) : -Infinity);
/** @param db at or below −60 it is silent */
export const gainOf = (db: number): number => (db <= SILENT ? 0 : Math.min(MOST_GAIN, 10 ** (db / 20)));

/** A level in words: `−6.0 dB`, `+3.5 dB`, `silent`. */
export function levelText(gain: number): string {
  const db = decibels(gain);
  if (db <= SILENT) return 'silent';
  const round = Math.round(db * 10) / 10;
  return `${round < 0 ? '−' : round > 0 ? '+' : ''}${Math.abs(round).toFixed(1)} dB`;
}

/** A level made louder as a whole, all its keyframes; what is silent begins at −60 dB. @param by dB */
export function louder(level: Value<number>, by: number): Value<number> {
  const to = (gain: number): number => gainOf(Math.max(SILENT, decibels(gain)) + by);
  return 'still' in level
    ? { ...level, still: to(level.still) }
    : { ...level, keys: level.keys.map((key) => ({ ...key, value: to(key.value) })) };
}
