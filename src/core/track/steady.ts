// What a camera's sway has to be moved back by, and how much that costs.
import { apply, invert, multiply, projective, rotation, scaling, translation, type Matrix } from '../picture/matrix';
import { evenPath } from './camera-path';
import { growthAt, mapBetween, middleOf, turnAt } from './motion';
import { pointsAt, type Samples } from './samples';

/** How the picture lies on a frame, seen from the first one: its middle, clockwise degrees, and the logarithm of its size. */
export interface Pose {
  x: number;
  y: number;
  turn: number;
  size: number;
}
export interface Steadying {
  /** how much of each is taken away, 0…1 */
  position: number;
  rotation: number;
  scale: number;
  /** the camera stands still, its way is smoothed over so many frames, or made of even pieces that lead no corner farther off than so many pixels */
  way: { is: 'still' } | { is: 'smooth'; over: number } | { is: 'even'; room: number; corner: number };
}

/** The poses of all frames of a track from its first to its last; turns without jumps. */
export function posesOf(samples: Samples): Pose[] {
  const start = pointsAt(samples, samples.first);
  if (!start) return [];
  const [x0, y0] = middleOf(start);
  let last = 0;
  return samples.rows.map((_, i) => {
    const now = pointsAt(samples, samples.first + i)!;
    const m = mapBetween(start, now) ?? projective([1, 0, 0, 1, 0, 0]);
    const [x, y] = middleOf(now);
    const turn = turnAt(m, x0, y0);
    last = turn - 360 * Math.round((turn - last) / 360);
    return { x, y, turn: last, size: Math.log(growthAt(m, x0, y0)) };
  });
}

/**
 * A list smoothed over so many frames: about each frame a line is laid through its neighbours, the nearer ones counting more, so
 * that a steady move stays one up to its ends. Source: Cleveland 1979, with Gaussian weights.
 */
function smoothed(values: readonly number[], frames: number): number[] {
  const sigma = Math.max(0.5, frames / 2);
  const reach = Math.ceil(3 * sigma);
  return values.map((_, i) => {
    let [s0, s1, s2, t0, t1] = [0, 0, 0, 0, 0];
    for (let k = Math.max(-reach, -i); k <= Math.min(reach, values.length - 1 - i); k++) {
      const weight = Math.exp(-(k * k) / (2 * sigma * sigma));
      s0 += weight;
      s1 += weight * k;
      s2 += weight * k * k;
      t0 += weight * values[i + k]!;
      t1 += weight * k * values[i + k]!;
    }
    const det = s0 * s2 - s1 * s1;
    return det > 1e-9 ? (s2 * t0 - s1 * t1) / det : values[i]!;
  });
}

/** The pose that each frame is to have. */
function wanted(poses: readonly Pose[], { position, rotation: turned, scale, way }: Steadying): Pose[] {
  const first = poses[0]!;
  const list = (part: keyof Pose) => {
    const own = poses.map((pose) => pose[part]);
    if (way.is === 'still') return own.map(() => first[part]);
    if (way.is === 'smooth') return smoothed(own, way.over);
    // turning and growing move what lies far from the middle
    const unit = part === 'turn' ? 180 / Math.PI / way.corner : part === 'size' ? 1 / way.corner : 1;
    return evenPath(own, Math.max(1e-6, way.room * unit));
  };
  const [x, y, turn, size] = [list('x'), list('y'), list('turn'), list('size')];
  return poses.map((pose, i) => ({
    x: pose.x + (x[i]! - pose.x) * position,
    y: pose.y + (y[i]! - pose.y) * position,
    turn: pose.turn + (turn[i]! - pose.turn) * turned,
    size: pose.size + (size[i]! - pose.size) * scale,
  }));
}

/** Source pixels from the centre → source pixels from the centre: what puts a frame where it is wanted. */
export function corrections(samples: Samples, how: Steadying): Matrix[] {
  const poses = posesOf(samples);
  if (!poses.length) return [];
  const lies = ({ x, y, turn, size }: Pose): Matrix => {
    const by = Math.exp(size);
    return multiply(translation(x, y), multiply(rotation(turn), scaling(by, by)));
  };
  return wanted(poses, how).map((pose, i) => multiply(lies(pose), invert(lies(poses[i]!)) ?? [1, 0, 0, 1, 0, 0]));
}

/** The enlargement about the middle beyond which a picture would rather have open corners. */
export const MOST_ZOOM = 4;

/** How much a w×h picture moved by each of these has to be enlarged about its middle so that it covers its frame on all of them. @param spare pixels left over on each side, whose edge is soft */
export function coveringZoom(moves: readonly Matrix[], w: number, h: number, spare = 0.5): number {
  let share = 1;
  const [rx, ry] = [w / 2 - spare, h / 2 - spare];
  for (const move of moves) {
    const back = invert(move);
    if (!back) continue;
    const [cx, cy] = apply(back, 0, 0);
    for (const [kx, ky] of [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as const) {
      const [x, y] = apply(back, (kx * w) / 2, (ky * h) / 2);
      // along the way from the middle to the corner, the last place that lies within the picture
      for (const [from, to, most] of [
        [cx, x, rx],
        [cy, y, ry],
      ] as const) {
        const way = to - from;
        if (Math.abs(way) < 1e-9) continue;
        const limit = ((way > 0 ? most : -most) - from) / way;
        share = Math.min(share, limit);
      }
    }
  }
  return 1 / Math.max(1 / MOST_ZOOM, share);
}

/** Places looked at along each side of a frame, and how closely the zoom is found. */
const ALONG = 24;
const CLOSELY = 0.001;

/**
 * How much a w×h picture has to be enlarged about its middle so that every place of its border is covered on each frame by that frame or one of
 * those so many frames before and after. @param moves of all frames @param spare pixels left over on each side
 */
export function fillingZoom(
  moves: readonly Matrix[],
  steps: readonly number[],
  w: number,
  h: number,
  spare = 0.5,
): number {
  const backs = moves.map((move) => invert(move) ?? move);
  const [rx, ry] = [w / 2 - spare, h / 2 - spare];
  const border = Array.from({ length: ALONG + 1 }, (_, i) => i / ALONG - 0.5).flatMap((t) => [
    [t * w, -h / 2],
    [t * w, h / 2],
    [-w / 2, t * h],
    [w / 2, t * h],
  ]) as [number, number][];
  const holds = (back: Matrix, x: number, y: number): boolean => {
    const [u, v] = apply(back, x, y);
    return Math.abs(u) <= rx && Math.abs(v) <= ry;
  };
  const covers = (at: number, zoom: number): boolean => {
    const near = [at, ...steps.flatMap((by) => [at - by, at + by])].flatMap((i) => (backs[i] ? [backs[i]] : []));
    return border.every(([x, y]) => near.some((back) => holds(back, x / zoom, y / zoom)));
  };
  let zoom = 1;
  for (let at = 0; at < moves.length; at++) {
    if (covers(at, zoom)) continue;
    let [low, high] = [zoom, MOST_ZOOM];
    while (high - low > CLOSELY) {
      const middle = (low + high) / 2;
      if (covers(at, middle)) high = middle;
      else low = middle;
    }
    zoom = high;
  }
  return zoom;
}
