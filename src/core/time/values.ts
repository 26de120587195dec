import type { Key, Value } from '../document/value';
import { ease } from './easing';

/** What a value is at a frame of layer time. Before the first and after the last keyframe it holds. */
export function valueAt<T>(value: Value<T>, frame: number): T {
  if ('still' in value) return value.still;
  const { keys } = value;
  let low = 0;
  let high = keys.length - 1;
  if (frame <= keys[0]!.at) return keys[0]!.value;
  if (frame >= keys[high]!.at) return keys[high]!.value;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (keys[middle]!.at <= frame) low = middle;
    else high = middle;
  }
  return between(keys[low]!, keys[high]!, frame);
}

function between<T>(from: Key<T>, to: Key<T>, frame: number): T {
  const t = ease(from.ease, (frame - from.at) / (to.at - from.at));
  return blend(from.value, to.value, t) as T;
}

function blend(a: unknown, b: unknown, t: number): unknown {
  if (typeof a === 'number' && typeof b === 'number') return a + (b - a) * t;
  if (Array.isArray(a) && Array.isArray(b) && a.length === b.length) return a.map((part, i) => blend(part, b[i], t));
  return t < 1 ? a : b;
}
