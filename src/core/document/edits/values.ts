// Every animatable value of a layer by a path, so that rows, curves, pegs and keyframe edits treat them all alike.
import type { Draft } from 'immer';
import { numbersOf, type Params } from '../../params/registry';
import { paramsOf, titleOf } from '../../passes/registry';
import { sourceOf } from '../../sources/registry';
import type { AnyDriver } from '../../time/drivers/registry';
import { steadyAt } from '../../time/values';
import { MOST_GROW, type Mask } from '../mask';
import { MOST_SPEED, stockOf, type Layer } from '../schema';
import { still, type Ease, type Key, type Value } from '../../base/value';

/** What a value is and how it is shown. Numbers are stored; `factor` times that is shown (percent as 50, not 0.5). */
export interface ValueEntry {
  path: string;
  /** the pass or part of the layer that it belongs to */
  group: string;
  label: string;
  /** names of the parts when it has several numbers; none when it is no number */
  parts: readonly string[];
  unit: string;
  factor: number;
  min: number;
  max: number;
}

const XY = ['x', 'y'] as const;
const ONE = [''] as const;
const entry = (
  path: string,
  group: string,
  label: string,
  parts: readonly string[],
  unit: string,
  min: number,
  max: number,
): ValueEntry => ({ path, group, label, parts, unit, factor: unit === '%' ? 100 : 1, min, max });

const PLACE_ENTRIES: readonly ValueEntry[] = [
  entry('place.position', 'Place', 'Position', XY, 'px', -1e6, 1e6),
  entry('place.scale', 'Place', 'Scale', ['width', 'height'], '%', 0, 1000),
  entry('place.rotation', 'Place', 'Rotation', ONE, '°', -1e6, 1e6),
  entry('place.anchor', 'Place', 'Anchor', XY, 'px', -1e6, 1e6),
  entry('place.tilt', 'Place', 'Tilt', XY, '°', -3600, 3600),
  entry('place.perspective', 'Place', 'Perspective', ONE, '%', 0, 1),
  entry('place.depth', 'Place', 'Depth', ONE, 'px', -1e6, 1e6),
  entry('opacity', 'Place', 'Opacity', ONE, '%', 0, 1),
];
const SPEED = entry('time.speed', 'Time', 'Speed', ONE, '%', -MOST_SPEED, MOST_SPEED);
const GAIN = entry('sound.gain', 'Sound', 'Level', ONE, '%', 0, 8);

const SIZE = ['width', 'height'] as const;
/** Values of masks' shapes, by their names. */
const SHAPE_VALUES: Record<string, (path: string, group: string) => ValueEntry> = {
  centre: (path, group) => entry(path, group, 'Centre', XY, 'px', -1e6, 1e6),
  size: (path, group) => entry(path, group, 'Size', SIZE, 'px', 0, 1e5),
  rotation: (path, group) => entry(path, group, 'Rotation', ONE, '°', -1e6, 1e6),
  radius: (path, group) => entry(path, group, 'Corner radius', ONE, 'px', 0, 1e5),
  height: (path, group) => entry(path, group, 'Height', ONE, 'px', 1, 1e4),
  core: (path, group) => entry(path, group, 'Solid core', ONE, '%', 0, 1),
  from: (path, group) => entry(path, group, 'Solid at', XY, 'px', -1e6, 1e6),
  to: (path, group) => entry(path, group, 'Clear at', XY, 'px', -1e6, 1e6),
  path: (path, group) => entry(path, group, 'Path', [], '', 0, 0),
  strokes: (path, group) => entry(path, group, 'Strokes', [], '', 0, 0),
  matte: (path, group) => entry(path, group, 'Matte', [], '', 0, 0),
};
const maskEntries = ({ id, name, shape }: Mask): ValueEntry[] => [
  ...Object.keys(shape).flatMap((key) => SHAPE_VALUES[key]?.(`mask.${id}.${key}`, name) ?? []),
  entry(`mask.${id}.opacity`, name, 'Opacity', ONE, '%', 0, 1),
  entry(`mask.${id}.feather`, name, 'Feather', ONE, 'px', 0, 2000),
  entry(`mask.${id}.grow`, name, 'Grow', ONE, 'px', -MOST_GROW, MOST_GROW),
];

/** Values of something declared. What has no numbers can be animated too: it changes from one keyframe to the next. */
const declaredEntries = (path: string, group: string, params: Params): ValueEntry[] =>
  Object.entries(params).map(([name, param]) => {
    const { names, unit, min, max } = numbersOf(param) ?? { names: [], unit: '', min: 0, max: 0 };
    return entry(`${path}.${name}`, group, param.label, names, unit, min, max);
  });

/** All values of a layer that can be animated, in the order of its work. */
export function entriesOf(layer: Layer): ValueEntry[] {
  const passes = layer.passes.flatMap((pass) => {
    return declaredEntries(`pass.${pass.id}`, titleOf(pass.type), paramsOf(pass.type));
  });
  const declared = sourceOf(layer.source.type);
  return [
    ...(declared?.timed ? [SPEED] : declaredEntries('source', 'Source', declared?.params ?? {})),
    ...layer.masks.flatMap(maskEntries),
    ...passes,
    ...PLACE_ENTRIES,
    ...(stockOf(layer) ? [GAIN] : []),
  ];
}

/** Values that came later, and may be left out. */
const LATER: Readonly<Record<string, Value<unknown>>> = { 'place.depth': still(0) };

/** Where a path leads: the thing that holds the value, and its name there. */
function holder(layer: Layer, path: string): [Record<string, unknown>, string] | null {
  const [first, second, third] = path.split('.') as [string, string?, string?];
  if (first === 'opacity') return [layer as unknown as Record<string, unknown>, 'opacity'];
  if (first === 'mask') {
    const mask = layer.masks.find((item) => item.id === second) as unknown as
      (Record<string, unknown> & { shape: Record<string, unknown> }) | undefined;
    const part = mask && third && third in mask.shape ? mask.shape : mask;
    return part && third && third in part ? [part, third] : null;
  }
  if (first === 'pass') {
    const pass = layer.passes.find((item) => item.id === second);
    return pass && third && third in pass.values ? [pass.values, third] : null;
  }
  const part = { place: layer.place, time: layer.time, sound: layer.sound, source: layer.source.values }[
    first
  ] as unknown as Record<string, unknown> | undefined;
  return part && second && (second in part || path in LATER) ? [part, second] : null;
}

/** The value at a path, or undefined when there is none. */
export function valueIn(layer: Layer, path: string): Value<unknown> | undefined {
  const found = holder(layer, path);
  return found ? ((found[0][found[1]] as Value<unknown> | undefined) ?? LATER[path]) : undefined;
}

export function writeValue(layer: Draft<Layer> | Layer, path: string, value: Value<unknown>): void {
  const found = holder(layer as Layer, path);
  if (found) found[0][found[1]] = value;
}

export const isKeyed = (value: Value<unknown> | undefined): boolean => !!value && 'keys' in value;

/** The value with other keyframes, in order, of each frame the last one; still at `otherwise` when none are left. */
export function withKeys<T>(value: Value<T>, keys: readonly Key<T>[], otherwise: T): Value<T> {
  const more = value.drivers ? { drivers: value.drivers } : {};
  const byFrame = new Map(keys.map((key) => [key.at, key]));
  const sorted = [...byFrame.values()].sort((a, b) => a.at - b.at);
  if (!sorted.length) return { still: otherwise, ...more };
  return { keys: sorted, ...('keys' in value && value.even ? { even: true } : {}), ...more };
}

/** The value with something else at a frame: a still one changes as a whole, a keyed one gets a keyframe there. */
export function changedAt<T>(value: Value<T>, frame: number, next: T): Value<T> {
  if ('still' in value) return { ...value, still: next };
  const at = Math.round(frame);
  const before = value.keys.filter((key) => key.at <= at).at(-1);
  const own = value.keys.find((key) => key.at === at);
  return withKeys(
    value,
    [...value.keys, { ...(own ?? { at, ease: before?.ease ?? value.keys[0]!.ease }), value: next }],
    next,
  );
}

/** Adds a keyframe that changes nothing, or takes the one at the frame away. */
export function pegged<T>(value: Value<T>, frame: number, ease: Ease = 'linear'): Value<T> {
  const at = Math.round(frame);
  const now = steadyAt(value, at);
  if ('still' in value) return withKeys(value, [{ at, value: now, ease }], now);
  if (value.keys.some((key) => key.at === at))
    return withKeys(
      value,
      value.keys.filter((key) => key.at !== at),
      now,
    );
  return changedAt(value, at, now);
}

/** The value with one driver of a type in place of those it has, or with none. */
export function withDriver(value: Value<unknown>, type: string, driver: AnyDriver | null): Value<unknown> {
  const { drivers = [], ...rest } = value;
  const at = drivers.findIndex((other) => other.type === type);
  const others = drivers.filter((other) => other.type !== type);
  const next = driver ? others.toSpliced(at < 0 ? others.length : at, 0, driver) : others;
  return (next.length ? { ...rest, drivers: next } : rest) as Value<unknown>;
}

/** Does something with every value of a layer that is keyed. */
export function eachKeyed(layer: Layer, change: (value: Value<unknown>, path: string) => Value<unknown>): void {
  for (const { path } of entriesOf(layer)) {
    const value = valueIn(layer, path);
    if (value && 'keys' in value) writeValue(layer, path, change(value, path));
  }
}

/** Replaces the number or numbers of a value wherever it stands, keyframes included. */
export function mapped<T>(value: Value<T>, change: (value: T) => T): Value<T> {
  if ('still' in value) return { ...value, still: change(value.still) };
  return { ...value, keys: value.keys.map((key) => ({ ...key, value: change(key.value) })) };
}
