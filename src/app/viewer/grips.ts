// The places on the picture by which a mask's shape is changed, and what dragging each of them writes.
import type { Shape } from '../../core/document/mask';
import type { Value } from '../../core/base/value';
import { tenths, type XY } from './frame';

export interface Grip {
  name: string;
  at: XY;
  round?: boolean;
  /** values by their names in the shape, when the grip is put there */
  put(to: XY): Record<string, unknown>;
}
type Now = <T>(value: Value<T>) => T;

const turned = ([x, y]: XY, degrees: number): XY => {
  const r = (degrees * Math.PI) / 180;
  return [x * Math.cos(r) - y * Math.sin(r), x * Math.sin(r) + y * Math.cos(r)];
};
const plus = (a: XY, b: XY): XY => [a[0] + b[0], a[1] + b[1]];
const pair = ([x, y]: XY): [number, number] => [tenths(x), tenths(y)];
/** How far the turning grip stands off, in source pixels. */
const STALK = 60;

export function gripsOf(shape: Shape, now: Now): Grip[] {
  if (shape.kind === 'linear') {
    return [
      { name: 'Solid end', at: now(shape.from), put: (to) => ({ from: pair(to) }) },
      { name: 'Clear end', at: now(shape.to), round: true, put: (to) => ({ to: pair(to) }) },
    ];
  }
  if (!('centre' in shape)) return [];
  const [centre, rotation] = [now(shape.centre), now(shape.rotation)];
  const middle: Grip = { name: 'Centre', at: centre, put: (to) => ({ centre: pair(to) }) };
  const turn = (reach: number): Grip => ({
    name: 'Rotation',
    at: plus(centre, turned([reach, 0], rotation)),
    round: true,
    put: (to) => ({ rotation: tenths((Math.atan2(to[1] - centre[1], to[0] - centre[0]) * 180) / Math.PI) }),
  });
  if (shape.kind === 'line') return [middle, turn(STALK * 2)];
  if (shape.kind === 'text') {
    const tall = now(shape.height);
    const grow: Grip = {
      name: 'Height',
      at: plus(centre, turned([0, -tall / 2], rotation)),
      put: (to) => ({ height: Math.max(1, tenths(2 * Math.hypot(to[0] - centre[0], to[1] - centre[1]))) }),
    };
    return [middle, turn(tall + STALK), grow];
  }
  const [w, h] = now(shape.size);
  /** The opposite corner stays. */
  const cornerAt = (name: string, sx: 1 | -1, sy: 1 | -1): Grip => ({
    name,
    at: plus(centre, turned([(sx * w) / 2, (sy * h) / 2], rotation)),
    put: (to) => {
      const opposite = plus(centre, turned([(-sx * w) / 2, (-sy * h) / 2], rotation));
      const [dx, dy] = turned([to[0] - opposite[0], to[1] - opposite[1]], -rotation);
      return {
        size: [Math.max(1, tenths(sx * dx)), Math.max(1, tenths(sy * dy))],
        centre: pair([(to[0] + opposite[0]) / 2, (to[1] + opposite[1]) / 2]),
      };
    },
  });
  return [
    middle,
    cornerAt('Top left corner', -1, -1),
    cornerAt('Top right corner', 1, -1),
    cornerAt('Bottom right corner', 1, 1),
    cornerAt('Bottom left corner', -1, 1),
    turn(w / 2 + STALK),
  ];
}
