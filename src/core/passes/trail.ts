import { LRUCache } from 'lru-cache';
import { paintStrokes } from '../masks/brush';
import { Picture } from '../picture/picture';
import { number } from '../params/number';
import { samples } from '../params/samples';
import { track, type TrackNow } from '../params/track';
import { choice } from '../params/choice';
import { trackNamed } from '../track/known';
import { middleOf } from '../track/motion';
import { pointsAt } from '../track/samples';
import { definePass } from './define';

/** Most frames that a trail is long, so that plans stay small. */
const LONGEST = 480;
/** Steps in which a trail fades. */
const FADES = 16;

/** The way of a track up to now, as a stroke. */
export const trail = definePass({
  type: 'trail',
  title: 'Trail',
  group: 'light',
  words: ['path', 'streak', 'light painting', 'smoke behind', 'draw the way', 'tail', 'signature'],
  help: 'Draws the way that a track has gone, over the picture: the line behind a kite, the light of a lantern that is swung. Relatives: Afterimages, which repeats the picture itself.',
  params: {
    track: track({ label: 'Track', help: 'Of the layer’s own clip.' }),
    length: number({
      label: 'Length',
      unit: '',
      default: 48,
      min: 1,
      max: LONGEST,
      slider: [2, 240],
      help: 'Frames of the clip that it reaches back.',
    }),
    width: number({
      label: 'Width',
      unit: 'px',
      default: 8,
      min: 0,
      max: 500,
      slider: [0, 60],
      help: 'Where it is widest.',
    }),
    tail: choice({
      label: 'Tail',
      default: 'thin',
      options: [
        { value: 'thin', label: 'gets thinner and fades' },
        { value: 'fade', label: 'fades' },
        { value: 'even', label: 'is even' },
      ],
      help: 'How its old end looks.',
    }),
    hardness: number({
      label: 'Hardness',
      unit: '%',
      default: 0.4,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'Of its rim.',
    }),
    colour: samples({ label: 'Colour', default: [[1, 0.86, 0.55]], most: 1, from: 'shot', help: 'Of the trail.' }),
    opacity: number({
      label: 'Opacity',
      unit: '%',
      default: 1,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'At its newest end.',
    }),
  },
  idle: (v) => v.track.name === '' || v.width === 0 || v.opacity === 0,
  reach: () => 0,
  moment: (v) => ({ way: wayOf(v.track, Math.round(v.length)) }),
  note: (v) => ({ says: v.track.name ? '' : 'Choose a track of this layer’s clip.', warns: !v.track.name }),
  run(picture, v, tools) {
    const { kernels, arena } = tools;
    const { way } = v as unknown as { way: [number, number][] };
    const { x, y, w, h } = picture.rect;
    const out = Picture.make(arena, picture.rect);
    kernels.copy(picture.at, out.at, out.pixels);
    const plane = tools.scratch(w * h * 4 + 12);
    kernels.fillPlane(plane, w * h, 0);
    const { scale } = v.track;
    const origin = [(v.track.size.w / 2) * scale - x, (v.track.size.h / 2) * scale - y] as const;
    const age = (i: number) => (way.length < 2 ? 1 : i / (way.length - 1));
    const size = (i: number) => (v.tail === 'thin' ? age(i) : 1);
    // the oldest part first: what is newer covers it
    const parts = v.tail === 'even' ? 1 : Math.min(FADES, Math.max(1, way.length - 1));
    for (let part = 0; part < parts; part++) {
      const from = Math.floor((part * (way.length - 1)) / parts);
      const to = Math.ceil(((part + 1) * (way.length - 1)) / parts);
      const points = way.slice(from, to + 1).map(([px, py], i) => [px, py, size(from + i)] as const);
      if (!points.length) continue;
      const opacity = v.opacity * (v.tail === 'even' ? 1 : (part + 1) / parts);
      paintStrokes(
        tools,
        plane,
        [{ points, size: v.width, hardness: v.hardness, opacity, erase: false }],
        scale,
        origin,
        w,
        h,
      );
    }
    const [r, g, b] = v.colour[0] ?? [1, 1, 1];
    kernels.overPlane(out.at, plane, w * h, r, g, b, 0);
    return out;
  },
});

const ways = new LRUCache<string, [number, number][]>({ max: 64 });
/** Where the middle of a track was on the frames up to now, the oldest first. */
function wayOf({ name, frame }: TrackNow, length: number): [number, number][] {
  const found = name ? trackNamed(name) : null;
  if (!found) return [];
  const key = `${name} ${frame} ${length}`;
  const before = ways.get(key);
  if (before) return before;
  const { first, rows } = found.samples;
  const end = Math.min(frame, first + rows.length - 1);
  const start = Math.max(first, end - length);
  const out: [number, number][] = [];
  for (let at = start; at <= end + 1e-6; at++) {
    const points = pointsAt(found.samples, Math.min(at, end));
    if (!points) continue;
    const [x, y] = middleOf(points);
    out.push([Math.round(x * 100) / 100, Math.round(y * 100) / 100]);
  }
  ways.set(key, out);
  return out;
}
