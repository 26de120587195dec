// Framing a still (or any layer): what part of its picture fills the shot, as place values and back.
import type { Layer, Shot } from './schema';
import type { Key } from './value';

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
export function placeOfFraming({ x, y, width }: Framing, shot: Size): { position: [number, number]; scale: [number, number] } {
  const scale = shot.w / width;
  return { position: [-x * scale || 0, -y * scale || 0], scale: [scale, scale] };
}

export function framingOfPlace(position: readonly [number, number], scale: readonly [number, number], shot: Size): Framing {
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

/**
 * Place keyframes that go from framing to framing with constant apparent speed: the width changes by equal factors in equal
 * times, and the centre moves along. Between two framings of unlike width that needs keyframes in between.
 * @param stops framings at frames of layer time, ascending, at least one
 */
export function framingKeys(stops: readonly { at: number; framing: Framing }[], shot: Size): { position: Key<[number, number]>[]; scale: Key<[number, number]>[] } {
  const position: Key<[number, number]>[] = [];
  const scale: Key<[number, number]>[] = [];
  const add = (at: number, framing: Framing) => {
    const place = placeOfFraming(framing, shot);
    position.push({ at, value: place.position, ease: 'linear' });
    scale.push({ at, value: place.scale, ease: 'linear' });
  };
  stops.forEach(({ at, framing }, i) => {
    add(at, framing);
    const next = stops[i + 1];
    if (!next) return;
    const factor = next.framing.width / framing.width;
    const pieces = Math.min(next.at - at, Math.abs(Math.log(factor)) < 1e-3 ? 1 : Math.max(2, Math.ceil(Math.abs(Math.log(factor)) * 12)));
    for (let k = 1; k < pieces; k++) {
      const frame = at + Math.round(((next.at - at) * k) / pieces);
      add(frame, framingBetween(framing, next.framing, (frame - at) / (next.at - at)));
    }
  });
  return { position, scale };
}

/** A framing on the way from one to another at constant apparent speed. @param t share of the time, 0…1 */
export function framingBetween(a: Framing, b: Framing, t: number): Framing {
  const factor = b.width / a.width;
  const width = a.width * factor ** t;
  // the point of the picture that stays where it is on screen stays there all the way: the centre moves with the width
  const moved = Math.abs(factor - 1) < 1e-6 ? t : (width - a.width) / (b.width - a.width);
  return { x: a.x + (b.x - a.x) * moved, y: a.y + (b.y - a.y) * moved, width };
}

/** Frames of layer time at which a layer's framing is set: its position's keyframes, or its first and last frame. */
export const spanOf = (layer: Layer, shot: Shot): [number, number] => {
  const first = Math.max(0, -layer.span.start);
  return [first, Math.max(first + 1, Math.min(layer.span.length, shot.length - layer.span.start) - 1)];
};
