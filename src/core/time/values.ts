import { hermite, slopeAt } from '../base/monotone';
import type { Key, Value } from '../base/value';
import { driverOf } from './drivers/registry';
import { ease } from './easing';
import type { Moment } from './moment';
import { walked, walkedEvenly } from './path';

/** What a value is at a moment, with all that drives it. Before the first and after the last keyframe it holds. */
export function valueAt<T>(value: Value<T>, moment: Moment): T {
  const plain = steadyAt(value, moment.frame);
  return (value.drivers ?? []).reduce<unknown>(
    (now, driver) => driverOf(driver.type)?.drive(now, driver, moment) ?? now,
    plain,
  ) as T;
}

/** What values by name are at a moment. */
export const valuesAt = (values: Readonly<Record<string, Value<unknown>>>, moment: Moment): Record<string, unknown> =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [name, valueAt(value, moment)]));

/** What a value has to be without what drives it so that it is seen as something: what a handle on the picture writes. */
export const plainFor = <T>(value: Value<T>, wanted: T, moment: Moment): T =>
  (value.drivers ?? []).reduceRight<unknown>(
    (now, driver) => driverOf(driver.type)?.undo(now, driver, moment) ?? now,
    wanted,
  ) as T;

/** What a value is at a frame of layer time without what drives it. */
export function steadyAt<T>(value: Value<T>, frame: number): T {
  if ('still' in value) return value.still;
  const { keys } = value;
  const last = keys.length - 1;
  if (frame <= keys[0]!.at) return keys[0]!.value;
  if (frame >= keys[last]!.at) return keys[last]!.value;
  if (value.even && isPoint(keys[0]!)) {
    const share = ease(keys[0].ease, (frame - keys[0].at) / (keys[last]!.at - keys[0].at));
    return walkedEvenly(keys as unknown as Key<[number, number]>[], share) as T;
  }
  return spanAt(keys, keyBefore(keys, frame), frame);
}

/** Index of the last keyframe at or before a frame that is not before the first. */
export function keyBefore(keys: readonly { at: number }[], frame: number): number {
  let low = 0;
  let high = keys.length - 1;
  if (frame >= keys[high]!.at) return high;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (keys[middle]!.at <= frame) low = middle;
    else high = middle;
  }
  return low;
}

function spanAt<T>(keys: readonly Key<T>[], i: number, frame: number): T {
  const from = keys[i]!;
  const to = keys[i + 1]!;
  const t = (frame - from.at) / (to.at - from.at);
  if (from.ease === 'smooth') return smoothed(keys, i, t, (key) => key.value) as T;
  const progress = ease(from.ease, t);
  if ((from.bend || to.bend) && isPoint(from))
    return walked(from, to as unknown as Key<[number, number]>, progress) as T;
  return blend(from.value, to.value, progress) as T;
}

const isPoint = (key: Key<unknown>): key is Key<[number, number]> =>
  Array.isArray(key.value) && key.value.length === 2 && typeof key.value[0] === 'number';

function blend(a: unknown, b: unknown, t: number): unknown {
  if (typeof a === 'number' && typeof b === 'number') return a + (b - a) * t;
  if (Array.isArray(a) && Array.isArray(b) && a.length === b.length) return a.map((part, i) => blend(part, b[i], t));
  return t < 1 ? a : b;
}

/** Part by part, a cubic between two keyframes whose slopes come from `slopeAt`. */
function smoothed(keys: readonly Key<unknown>[], i: number, t: number, part: (key: Key<unknown>) => unknown): unknown {
  const [a, b] = [part(keys[i]!), part(keys[i + 1]!)];
  const alike = (key: Key<unknown>) => (part(key) as unknown[]).length === (a as unknown[]).length;
  if (Array.isArray(a) && Array.isArray(b) && keys.every(alike))
    return a.map((_, k) => smoothed(keys, i, t, (key) => (part(key) as unknown[])[k]));
  if (typeof a !== 'number' || typeof b !== 'number') return blend(a, b, t);
  const long = keys[i + 1]!.at - keys[i]!.at;
  const points = { n: keys.length, at: (k: number) => keys[k]!.at, value: (k: number) => part(keys[k]!) as number };
  return hermite(a, b, slopeAt(points, i) * long, slopeAt(points, i + 1) * long, t);
}
