import { multiply, projective, projectiveProduct, rotation, scaling, translation, type Matrix, type Projective } from '../picture/matrix';
import { valueAt } from '../time/values';
import type { Layer, Place, Shot } from './schema';
import { still } from './value';

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

/**
 * Position and scale of a one-click placement. Fit shows all of the source, fill covers all of the shot, centre is the
 * source's own size; halves and corners fit the source into that half or quarter.
 */
export function placement(name: PlacementName, source: Size, shot: Size): { position: [number, number]; scale: [number, number] } {
  const box = boxOf(name, shot);
  const byWidth = box.w / source.w;
  const byHeight = box.h / source.h;
  const scale = name === 'centre' ? 1 : name === 'fill' ? Math.max(byWidth, byHeight) : Math.min(byWidth, byHeight);
  return { position: [box.x, box.y], scale: [scale, scale] };
}

/** Centre and size of the part of the shot that a placement fills. */
function boxOf(name: PlacementName, { w, h }: Size): { x: number; y: number; w: number; h: number } {
  const sideways = name.includes('left') ? -1 : name.includes('right') ? 1 : 0;
  const upright = name.includes('top') ? -1 : name.includes('bottom') ? 1 : 0;
  return {
    x: (sideways * w) / 4,
    y: (upright * h) / 4,
    w: sideways ? w / 2 : w,
    h: upright ? h / 2 : h,
  };
}

/** A layer that others may follow: its place and the frame of its own time. */
interface Placed {
  place: Place;
  frame: number;
  /** the layer it follows in turn, and in what */
  parent?: { of: Placed; rotation: boolean; scale: boolean } | undefined;
}

/** How a followed layer has carried the shot's plane along: position always, rotation and scale when asked for. Tilt does not carry. */
function carried({ place, frame, parent }: Placed, parts: { rotation: boolean; scale: boolean }, shot: Size): Matrix {
  const [px, py] = valueAt(place.position, frame);
  const [sx, sy] = valueAt(place.scale, frame);
  let m: Matrix = translation(shot.w / 2 + px, shot.h / 2 + py);
  if (parts.rotation) m = multiply(m, rotation(valueAt(place.rotation, frame)));
  if (parts.scale) m = multiply(m, scaling(sx, sy));
  m = multiply(m, translation(-shot.w / 2, -shot.h / 2));
  return parent ? multiply(carried(parent.of, parent, shot), m) : m;
}

/** The layer as something placed, with what it follows. */
function placed(shot: Shot, layer: Layer, frame: number): Placed {
  const parent = layer.parent && shot.layers.find((item) => item.id === layer.parent!.layer);
  return { place: layer.place, frame: frame - layer.span.start, parent: parent ? { ...layer.parent!, of: placed(shot, parent, frame) } : undefined };
}

/** How all that a layer follows carries it along at a shot frame: shot pixels → shot pixels. */
export function carriedBy(shot: Shot, layer: Layer, frame: number): Matrix {
  const { parent } = placed(shot, layer, frame);
  return parent ? carried(parent.of, parent, { w: shot.width, h: shot.height }) : [1, 0, 0, 1, 0, 0];
}

/**
 * Source pixels → shot pixels of a layer that is tilted out of the picture plane: turned about its anchor, then seen in
 * perspective from in front of the anchor. @returns null when it is not tilted
 */
export function tiltMatrix(place: Place, frame: number, source: Size, shot: Size): Projective | null {
  const [tx, ty] = valueAt(place.tilt, frame);
  if (tx === 0 && ty === 0) return null;
  const [px, py] = valueAt(place.position, frame);
  const [sx, sy] = valueAt(place.scale, frame);
  const [ax, ay] = valueAt(place.anchor, frame);
  const flat = multiply(multiply(rotation(valueAt(place.rotation, frame)), scaling(place.flipX ? -sx : sx, place.flipY ? -sy : sy)), translation(-source.w / 2 - ax, -source.h / 2 - ay));
  const [ca, sa, cb, sb] = [Math.cos((tx * Math.PI) / 180), Math.sin((tx * Math.PI) / 180), Math.cos((ty * Math.PI) / 180), Math.sin((ty * Math.PI) / 180)];
  // the plane's two axes after turning about x, then about y; z goes away from the eye, which is this far off
  const near = valueAt(place.perspective, frame) / Math.hypot(shot.w, shot.h);
  const turned: Projective = [cb, sb * sa, 0, 0, ca, 0, -sb * 2 * near, cb * sa * 2 * near, 1];
  return projectiveProduct(projective(translation(shot.w / 2 + px, shot.h / 2 + py)), projectiveProduct(turned, projective(flat)));
}

/** Source pixels (origin top left) → shot pixels (origin top left), at full size. @param frame layer time */
export function placeMatrix(place: Place, frame: number, source: Size, shot: Size): Matrix {
  const [px, py] = valueAt(place.position, frame);
  const [sx, sy] = valueAt(place.scale, frame);
  const [ax, ay] = valueAt(place.anchor, frame);
  let m = translation(shot.w / 2 + px, shot.h / 2 + py);
  m = multiply(m, rotation(valueAt(place.rotation, frame)));
  m = multiply(m, scaling(place.flipX ? -sx : sx, place.flipY ? -sy : sy));
  return multiply(m, translation(-source.w / 2 - ax, -source.h / 2 - ay));
}
