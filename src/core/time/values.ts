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
  if (Array.isArray(a) && Array.isArray(b) && a.length === b.length)
    return a.map((_, k) => smoothed(keys, i, t, (key) => (part(key) as unknown[])[k]));
  if (typeof a !== 'number' || typeof b !== 'number') return blend(a, b, t);
  const long = keys[i + 1]!.at - keys[i]!.at;
  const number = part as (key: Key<unknown>) => number;
  const [m0, m1] = [slopeAt(keys, i, number) * long, slopeAt(keys, i + 1, number) * long];
  const [t2, t3] = [t * t, t * t * t];
  return (2 * t3 - 3 * t2 + 1) * a + (t3 - 2 * t2 + t) * m0 + (3 * t2 - 2 * t3) * b + (t3 - t2) * m1;
}

/**
 * Slope at a keyframe, in units for each frame, so that the curve never leaves the range of its neighbours.
 * Source: Fritsch and Carlson 1980, with the weighted harmonic mean of Fritsch and Butland 1984.
 */
function slopeAt(keys: readonly Key<unknown>[], i: number, part: (key: Key<unknown>) => number): number {
  const secant = (k: number) => (part(keys[k + 1]!) - part(keys[k]!)) / (keys[k + 1]!.at - keys[k]!.at);
  if (keys.length === 2) return secant(0);
  const long = (k: number) => keys[k + 1]!.at - keys[k]!.at;
  const end = (near: number, far: number, d0: number, d1: number) => {
    const m = ((2 * near + far) * d0 - near * d1) / (near + far);
    if (m * d0 <= 0) return 0;
    return d0 * d1 <= 0 && Math.abs(m) > 3 * Math.abs(d0) ? 3 * d0 : m;
  };
  const n = keys.length - 1;
  if (i === 0) return end(long(0), long(1), secant(0), secant(1));
  if (i === n) return end(long(n - 1), long(n - 2), secant(n - 1), secant(n - 2));
  const [d0, d1] = [secant(i - 1), secant(i)];
  if (d0 * d1 <= 0) return 0;
  const [h0, h1] = [long(i - 1), long(i)];
  return (3 * (h0 + h1)) / ((2 * h1 + h0) / d0 + (h1 + 2 * h0) / d1);
}
