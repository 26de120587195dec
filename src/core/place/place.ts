import {
  apply,
  multiply,
  projective,
  projectiveProduct,
  rotation,
  scaling,
  translation,
  type Matrix,
  type Projective,
} from '../picture/matrix';
import { onLayer, type Moment } from '../time/moment';
import { steadyAt, valueAt } from '../time/values';
import { framingAt } from './framing';
import type { Layer, Place, Shot } from '../document/schema';
import { still, type Value } from '../base/value';

interface Size {
  w: number;
  h: number;
}

export const PLACEMENTS = [
  { name: 'fit', label: 'Fit' },
  { name: 'fill', label: 'Fill' },
  { name: 'centre', label: 'Centre' },
  { name: 'left', label: 'Left half' },
  { name: 'right', label: 'Right half' },
  { name: 'top', label: 'Top half' },
  { name: 'bottom', label: 'Bottom half' },
  { name: 'top-left', label: 'Top left corner' },
  { name: 'top-right', label: 'Top right corner' },
  { name: 'bottom-left', label: 'Bottom left corner' },
  { name: 'bottom-right', label: 'Bottom right corner' },
] as const;
export type PlacementName = (typeof PLACEMENTS)[number]['name'];

export const wholePlace = (): Place => ({
  position: still([0, 0] as [number, number]),
  scale: still([1, 1] as [number, number]),
  rotation: still(0),
  anchor: still([0, 0] as [number, number]),
  tilt: still([0, 0] as [number, number]),
  perspective: still(0.5),
  flipX: false,
  flipY: false,
});

export interface Placing {
  /** whether the part of the shot is filled, or all of the source shown in it; Fit, Fill and Centre say that themselves */
  fills: boolean;
  /** pixels that stay free at the shot's edges and between neighbours */
  border: number;
}
export interface Placed {
  position: [number, number];
  scale: [number, number];
  /** what of the shot the source would go beyond, and is cut to; from the shot's centre */
  pane: { centre: [number, number]; width: number; height: number } | null;
}

/** A one-click placement. Fit shows all of the source, Fill covers all of the shot, Centre is the source's own size. */
export function placement(name: PlacementName, source: Size, shot: Size, { fills, border }: Placing): Placed {
  const box = boxOf(name, shot, border);
  const [byWidth, byHeight] = [box.w / source.w, box.h / source.h];
  const cut = name === 'fill' || (fills && name !== 'fit' && name !== 'centre');
  const scale = name === 'centre' ? 1 : cut ? Math.max(byWidth, byHeight) : Math.min(byWidth, byHeight);
  const centre: [number, number] = [box.x, box.y];
  const beyond = source.w * scale > box.w + EVEN || source.h * scale > box.h + EVEN;
  const whole = box.w === shot.w && box.h === shot.h;
  return {
    position: centre,
    scale: [scale, scale],
    pane: cut && beyond && !whole ? { centre: [...centre], width: box.w, height: box.h } : null,
  };
}
/** Less than this many pixels too much is not worth cutting. */
const EVEN = 0.5;

/** Centre and size of the part of the shot that a placement fills. */
function boxOf(name: PlacementName, { w, h }: Size, border: number): { x: number; y: number; w: number; h: number } {
  const sideways = name.includes('left') ? -1 : name.includes('right') ? 1 : 0;
  const upright = name.includes('top') ? -1 : name.includes('bottom') ? 1 : 0;
  // neighbours share the border between them
  const part = (all: number, half: boolean): number => Math.max(0.5, half ? (all - 3 * border) / 2 : all - 2 * border);
  return {
    x: (sideways * (w - border)) / 4,
    y: (upright * (h - border)) / 4,
    w: part(w, sideways !== 0),
    h: part(h, upright !== 0),
  };
}

/** Where a layer is at a frame of its time, as numbers. */
export interface PlaceNow {
  position: readonly [number, number];
  scale: readonly [number, number];
  rotation: number;
  anchor: readonly [number, number];
  tilt: readonly [number, number];
  perspective: number;
  depth: number;
}

/** A layer's place at a moment. With a framing, position and scale are those that fill the shot with it; what drives them comes on top. */
export function placeAt(moment: Moment, place: Place = moment.layer.place): PlaceNow {
  const now: PlaceNow = {
    position: valueAt(place.position, moment),
    scale: valueAt(place.scale, moment),
    rotation: valueAt(place.rotation, moment),
    anchor: valueAt(place.anchor, moment),
    tilt: valueAt(place.tilt, moment),
    perspective: valueAt(place.perspective, moment),
    depth: place.depth ? valueAt(place.depth, moment) : 0,
  };
  if (!place.framing) return now;
  const { x, y, width } = framingAt(place.framing, moment.frame);
  const scale = moment.shot.width / width;
  // the framing's centre comes to the shot's centre, whichever way the layer is turned about its anchor
  const [dx, dy] = apply(
    multiply(rotation(now.rotation), scaling(place.flipX ? -scale : scale, place.flipY ? -scale : scale)),
    x - now.anchor[0],
    y - now.anchor[1],
  );
  const driven = (of: Value<[number, number]>, at: readonly [number, number]): [number, number] => {
    const [a, b] = [valueAt(of, moment), steadyAt(of, moment.frame)];
    return [at[0] + a[0] - b[0], at[1] + a[1] - b[1]];
  };
  return { ...now, position: driven(place.position, [-dx || 0, -dy || 0]), scale: driven(place.scale, [scale, scale]) };
}

/** How a followed layer has carried the shot's plane along: position always, rotation and scale when asked for. Tilt does not carry. */
function carrying(moment: Moment, parts: { rotation: boolean; scale: boolean }): Matrix {
  const now = placeAt(moment);
  const { width, height } = moment.shot;
  let m: Matrix = translation(width / 2 + now.position[0], height / 2 + now.position[1]);
  if (parts.rotation) m = multiply(m, rotation(now.rotation));
  if (parts.scale) m = multiply(m, scaling(...now.scale));
  return multiply(m, translation(-width / 2, -height / 2));
}

const UNMOVED: Matrix = [1, 0, 0, 1, 0, 0];
/** Of the shot and its frame looked at last: how each layer is carried, so that a long chain is gone along once. */
let known: { shot: Shot; frame: number; layers: ReadonlyMap<string, Layer>; byLayer: Map<string, Matrix> } | null =
  null;

/** How all that a layer follows carries it along at a moment: shot pixels → shot pixels. */
export function carriedBy(moment: Moment): Matrix {
  const { shot, layer } = moment;
  if (!layer.parent) return UNMOVED;
  const frame = moment.frame + layer.span.start;
  if (known?.shot !== shot || known.frame !== frame)
    known = { shot, frame, layers: new Map(shot.layers.map((item) => [item.id, item])), byLayer: new Map() };
  const { byLayer, layers } = known;
  // the chain up to where it is known, then down again
  const chain: { child: Layer; parent: Layer }[] = [];
  let at: Layer | undefined = layer;
  while (at?.parent && (at === layer || !byLayer.has(at.id))) {
    const parent = layers.get(at.parent.layer);
    if (!parent) break;
    chain.push({ child: at, parent });
    at = parent;
  }
  let m: Matrix = (at !== layer && at && byLayer.get(at.id)) || UNMOVED;
  for (const { child, parent } of chain.reverse()) {
    m = multiply(m, carrying(onLayer(moment, parent), child.parent!));
    // a layer that is only looked at as if it were otherwise is not the shot's
    if (layers.get(child.id) === child) byLayer.set(child.id, m);
  }
  return m;
}

/** Nearer to the eye than this share of its distance nothing comes. */
const NEAREST = 0.05;

/**
 * Source pixels → shot pixels of a layer that lies in depth: turned about its anchor and moved away, then seen in perspective
 * from before the shot's vanishing point, or from before the anchor where the shot has none. @returns null when it lies in the picture plane
 */
export function tiltMatrix(moment: Moment, source: Size): Projective | null {
  const { shot } = moment;
  const { place } = moment.layer;
  const {
    tilt: [tx, ty],
    position: [px, py],
    scale: [sx, sy],
    anchor: [ax, ay],
    rotation: turn,
    perspective,
    depth,
  } = placeAt(moment);
  if (tx === 0 && ty === 0 && depth === 0) return null;
  const flat = multiply(
    multiply(rotation(turn), scaling(place.flipX ? -sx : sx, place.flipY ? -sy : sy)),
    translation(-source.w / 2 - ax, -source.h / 2 - ay),
  );
  const [ca, sa, cb, sb] = [
    Math.cos((tx * Math.PI) / 180),
    Math.sin((tx * Math.PI) / 180),
    Math.cos((ty * Math.PI) / 180),
    Math.sin((ty * Math.PI) / 180),
  ];
  // the plane's two axes after turning about x, then about y; z goes away from the eye, which is 1 / near off
  const near = (2 * perspective) / Math.hypot(shot.width, shot.height);
  const away = Math.max(NEAREST, 1 + depth * near);
  const [zu, zv] = [-sb * near, cb * sa * near];
  const [vx, vy] = shot.vanishing ?? [px, py];
  const [x, y] = [px - vx, py - vy];
  // about the vanishing point: what is twice as far from the eye lies half as far from it
  const seen: Projective = [cb, sb * sa, x, 0, ca, y, zu, zv, away];
  return projectiveProduct(
    projective(translation(shot.width / 2 + vx, shot.height / 2 + vy)),
    projectiveProduct(seen, projective(flat)),
  );
}

/** Whether a layer's front is seen, not its back. @param map its pixels → the shot's @param at a place in its pixels */
export function showsFront(
  [a, b, c, d, e, f, g, h, i]: Projective,
  [x, y]: readonly [number, number],
  flipped: boolean,
): boolean {
  const [u, v, w] = [a * x + b * y + c, d * x + e * y + f, g * x + h * y + i];
  // the sign of how areas there are mapped
  const turned = (a * w - u * g) * (e * w - v * h) - (b * w - u * h) * (d * w - v * g) < 0;
  return turned === flipped;
}

/** Source pixels (origin top left) → shot pixels (origin top left), at full size. */
export function placeMatrix(moment: Moment, source: Size): Matrix {
  const { shot } = moment;
  const { place } = moment.layer;
  const {
    position: [px, py],
    scale: [sx, sy],
    anchor: [ax, ay],
    rotation: turn,
  } = placeAt(moment);
  let m = translation(shot.width / 2 + px, shot.height / 2 + py);
  m = multiply(m, rotation(turn));
  m = multiply(m, scaling(place.flipX ? -sx : sx, place.flipY ? -sy : sy));
  return multiply(m, translation(-source.w / 2 - ax, -source.h / 2 - ay));
}
