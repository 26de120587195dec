// Framing a still (or any layer): what part of its picture fills the shot, as place values and back.
import type { Layer, Shot } from '../document/schema';
import { ease } from '../time/easing';
import { keyBefore } from '../time/values';
import type { Ease } from '../base/value';

interface Size {
  w: number;
  h: number;
}
/** The part of a source that fills the shot: its centre in source pixels from the source's centre, and how many source pixels it is wide. */
export interface Framing {
  x: number;
  y: number;
  width: number;
}

/** The place that shows a framing: the source drawn so large that the framing fills the shot's width. */
export function placeOfFraming(
  { x, y, width }: Framing,
  shot: Size,
): { position: [number, number]; scale: [number, number] } {
  const scale = shot.w / width;
  return { position: [-x * scale || 0, -y * scale || 0], scale: [scale, scale] };
}

export function framingOfPlace(
  position: readonly [number, number],
  scale: readonly [number, number],
  shot: Size,
): Framing {
  const s = scale[0] || 1e-6;
  return { x: -position[0] / s || 0, y: -position[1] / s || 0, width: shot.w / s };
}

/** The widest framing of a source that has the shot's shape: nothing beyond the source shows. */
export function widest(source: Size, shot: Size): number {
  return Math.min(source.w, source.h * (shot.w / shot.h));
}

/** A framing moved so that nothing beyond the source shows, as far as it is small enough. */
export function inside(framing: Framing, source: Size, shot: Size): Framing {
  const width = Math.min(framing.width, widest(source, shot));
  const [roomX, roomY] = [(source.w - width) / 2, (source.h - (width * shot.h) / shot.w) / 2];
  return { x: Math.min(roomX, Math.max(-roomX, framing.x)), y: Math.min(roomY, Math.max(-roomY, framing.y)), width };
}

export const FRAMING_MOVES = [
  { name: 'push-in', label: 'Slow push in', from: { x: 0, y: 0, share: 1 }, to: { x: 0, y: 0, share: 0.8 } },
  { name: 'pull-back', label: 'Pull back', from: { x: 0, y: 0, share: 0.75 }, to: { x: 0, y: 0, share: 1 } },
  { name: 'drift-left', label: 'Drift left', from: { x: 1, y: 0, share: 0.8 }, to: { x: -1, y: 0, share: 0.8 } },
  { name: 'drift-right', label: 'Drift right', from: { x: -1, y: 0, share: 0.8 }, to: { x: 1, y: 0, share: 0.8 } },
  { name: 'rise', label: 'Rise', from: { x: 0, y: 1, share: 0.8 }, to: { x: 0, y: -1, share: 0.8 } },
] as const;
export type FramingMove = (typeof FRAMING_MOVES)[number]['name'];

/** Start and end of a preset move over a source. Shares are of the widest framing, x and y of the room there is. */
export function framingsOf(move: FramingMove, source: Size, shot: Size): [Framing, Framing] {
  const { from, to } = FRAMING_MOVES.find((entry) => entry.name === move)!;
  const framing = ({ x, y, share }: { x: number; y: number; share: number }): Framing => {
    const width = widest(source, shot) * share;
    return { x: (x * (source.w - width)) / 2, y: (y * (source.h - (width * shot.h) / shot.w)) / 2, width };
  };
  return [framing(from), framing(to)];
}

/** A framing that is gone to at a frame of layer time. `ease` is how it goes on from there to the next. */
export interface FramingStop extends Framing {
  at: number;
  ease: Ease;
}

/** A preset move from one end of a layer to the other. @param ends first and last frame of layer time */
export const stopsOf = (move: FramingMove, source: Size, shot: Size, ends: readonly [number, number]): FramingStop[] =>
  framingsOf(move, source, shot).map((framing, i) => ({ ...framing, at: ends[i]!, ease: 'linear' }));

/** The framing at a frame of layer time, which may be a fraction. Before the first stop and after the last it holds. @param stops ascending, at least one */
export function framingAt(stops: readonly FramingStop[], frame: number): Framing {
  const first = stops[0]!;
  const last = stops[stops.length - 1]!;
  if (frame <= first.at) return first;
  if (frame >= last.at) return last;
  const i = keyBefore(stops, frame);
  const [from, to] = [stops[i]!, stops[i + 1]!];
  return framingBetween(from, to, ease(from.ease, (frame - from.at) / (to.at - from.at)));
}

/**
 * Frames at which keyframes of a framing stand, so that every whole frame is met: the stops, and each frame between two where something moves.
 * @param turning further frames between which rotation or anchor move
 */
export function framedFrames(stops: readonly FramingStop[], turning: readonly number[] = []): number[] {
  const every = (from: number, to: number) => Array.from({ length: to - from }, (_, k) => from + k);
  if (turning.length) {
    const all = [...stops.map((stop) => stop.at), ...turning];
    return every(Math.min(...all), Math.max(...all) + 1);
  }
  return stops.flatMap((stop, i) => {
    const next = stops[i + 1];
    const still = !next || (next.x === stop.x && next.y === stop.y && next.width === stop.width);
    return every(stop.at, still ? stop.at + 1 : next.at);
  });
}

/** A framing on the way from one to another at constant apparent speed. @param t share of the time, 0…1 */
export function framingBetween(a: Framing, b: Framing, t: number): Framing {
  const factor = b.width / a.width;
  const width = a.width * factor ** t;
  // the point of the picture that stays where it is on screen stays there all the way: the centre moves with the width
  const moved = Math.abs(factor - 1) < 1e-6 ? t : (width - a.width) / (b.width - a.width);
  return { x: a.x + (b.x - a.x) * moved, y: a.y + (b.y - a.y) * moved, width };
}

/** The first and the last frame of layer time at which a layer can be seen in a shot; two different ones. */
export const spanOf = (layer: Layer, shot: Shot): [number, number] => {
  const first = Math.max(0, -layer.span.start);
  return [first, Math.max(first + 1, Math.min(layer.span.length, shot.length - layer.span.start) - 1)];
};
