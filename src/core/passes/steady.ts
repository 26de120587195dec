import { LRUCache } from 'lru-cache';
import { multiply, scaling, translation, type Matrix } from '../picture/matrix';
import { Picture } from '../picture/picture';
import { blendRows } from '../picture/rows';
import { place } from '../picture/transform';
import { boolean } from '../params/boolean';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { track, type TrackNow } from '../params/track';
import { trackNamed } from '../track/known';
import { corrections, coveringZoom, fillingZoom, type Steadying } from '../track/steady';
import { definePass } from './define';

const share = (label: string, help: string) =>
  number({ label, unit: '%', default: 1, min: 0, max: 1, slider: [0, 1], help });

/** Frames of the shot, before and after, that are looked into for what a frame lacks. */
const STEPS = [2, 6, 12, 24] as const;
const FAR = 24;
/** From here on an enlargement is worth a warning. */
const MUCH = 1.2;

/** Takes the sway of a camera away. Relatives: Shake, which adds some, and Straighten. */
export const steady = definePass({
  type: 'steady',
  title: 'Steady',
  group: 'frame',
  words: ['shaky', 'stabilise', 'stabilize', 'stop the shaking', 'hand-held', 'smooth camera', 'unshake', 'tripod'],
  help: 'Moves every frame back by what a track of the picture says it swayed, and enlarges it just enough that no corner is ever empty. Relatives: Shake, Straighten.',
  params: {
    track: track({
      label: 'Track',
      help: 'Of the layer’s own clip: a Sway, or any track of something that should stand still.',
      around: FAR,
    }),
    way: choice({
      label: 'Camera',
      default: 'smooth',
      options: [
        { value: 'smooth', label: 'moves smoothly' },
        { value: 'even', label: 'moves in even pieces' },
        { value: 'still', label: 'stands still' },
      ],
      help: 'Whether what the camera does on purpose stays.',
    }),
    over: number({
      label: 'Over',
      unit: '',
      default: 24,
      min: 1,
      max: 1000,
      slider: [2, 96],
      when: { choice: 'way', is: 'smooth' },
      help: 'Frames of the clip: moves that are shorter are taken for sway.',
    }),
    room: number({
      label: 'Farthest off',
      unit: 'px',
      default: 40,
      min: 1,
      max: 2000,
      slider: [4, 200],
      when: { choice: 'way', is: 'even' },
      help: 'How far the steadied picture may lie from where it was: more makes longer pieces that stand or go evenly, and needs more enlarging.',
    }),
    position: share('Position', 'How much of its shift is taken away.'),
    rotation: share('Rotation', 'How much of its turning is taken away.'),
    scale: share('Size', 'How much of its coming nearer and going away is taken away.'),
    edges: choice({
      label: 'Edges',
      default: 'enlarge',
      options: [
        { value: 'enlarge', label: 'enlarge to cover' },
        { value: 'frames', label: 'from other frames' },
      ],
      help: 'What fills the edges that a move uncovers: the picture, enlarged just enough that no corner is empty on any frame of the track; or what earlier and later frames show there, enlarged only by what none of them has.',
    }),
    cover: boolean({
      label: 'Enlarge to cover',
      default: true,
      retired: true,
      help: 'Just enough that no corner is empty on any frame of the track.',
    }),
  },
  idle: (v) => v.track.name === '' || (v.position === 0 && v.rotation === 0 && v.scale === 0),
  reach: () => Infinity,
  moment: (v) => steadied(v.track, { ...v, way: wayOf(v) }, v.edges === 'enlarge' && v.cover, v.edges === 'frames'),
  moments: (v) => (v as unknown as Steadied).others.map(({ by }) => by),
  note: (values) => {
    const { track, zoom } = values as unknown as { track: TrackNow; zoom: number };
    if (!track.name) return { says: 'Choose a track of this layer’s clip.', warns: true };
    return {
      says: `Enlarged to ${Math.round(zoom * 1000) / 10} %${zoom > MUCH ? '; that costs sharpness. Take less away, or let the camera move smoothly.' : '.'}`,
      warns: zoom > MUCH,
    };
  },
  run(picture, v, tools) {
    const { w, h } = tools.size;
    const { move, zoom, others } = v as unknown as Steadied;
    const rect = { x: 0, y: 0, w, h };
    const empty = () => Picture.make(tools.arena, { x: 0, y: 0, w: 0, h: 0 });
    const placed = (of: Picture, [a, b, c, d, e, f]: Matrix): Picture => {
      const { scale } = v.track;
      const moved = multiply(scaling(zoom, zoom), [a, b, c, d, e * scale, f * scale]);
      const map = multiply(translation(w / 2, h / 2), multiply(moved, translation(-w / 2, -h / 2)));
      return place(tools, of, map, 1, rect) ?? empty();
    };
    const own = placed(picture, move);
    const fills = others.flatMap(({ move: at }, i) => {
      const other = tools.moment(i);
      return other ? [{ other, at }] : [];
    });
    if (!fills.length) return own;
    const out = Picture.make(tools.arena, rect);
    tools.kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    const lay = (on: Picture) => {
      blendRows(tools, out, on, on.rect, 0);
      on.release();
    };
    // the nearest in time lie highest
    for (const { other, at } of fills.reverse()) lay(placed(other, at));
    lay(own);
    return out;
  },
});

function wayOf(v: { way: string; over: number; room: number; track: TrackNow }): Steadying['way'] {
  const { w, h } = v.track.size;
  if (v.way === 'even') return { is: 'even', room: v.room / v.track.scale, corner: Math.hypot(w, h) / 2 };
  return v.way === 'smooth' ? { is: 'smooth', over: v.over } : { is: 'still' };
}

interface Steadied {
  /** pixels at full size from the middle, before the enlargement */
  move: Matrix;
  zoom: number;
  /** the moves of other frames that may fill what this one lacks, by how many frames of the shot they are away, the nearest first */
  others: readonly { by: number; move: Matrix }[];
}
const UNMOVED: Steadied = { move: [1, 0, 0, 1, 0, 0], zoom: 1, others: [] };
/** All frames of the tracks that were steadied last, by what they depend on. */
const known = new LRUCache<string, { moves: Matrix[]; zoom: number; filled: number | null }>({ max: 16 });

function steadied(track: TrackNow, how: Steadying, cover: boolean, fill: boolean): Steadied {
  const found = track.name ? trackNamed(track.name) : null;
  if (!found) return UNMOVED;
  const { position, rotation, scale, way } = how;
  const { w, h } = track.size;
  const key = JSON.stringify([track.name, track.size, position, rotation, scale, way]);
  let all = known.get(key);
  if (!all) {
    const moves = corrections(found.samples, how);
    known.set(key, (all = { moves, zoom: coveringZoom(moves, w, h), filled: null }));
  }
  const { moves } = all;
  if (fill) all.filled ??= fillingZoom(moves, STEPS, w, h);
  const zoom = fill ? all.filled! : cover ? all.zoom : 1;
  const at = (frame: number): Matrix =>
    moves[Math.min(moves.length - 1, Math.max(0, Math.floor(frame + 1e-6) - found.samples.first))] ?? UNMOVED.move;
  const move = at(track.frame);
  const { around } = track;
  const lacks = fill && around && coveringZoom([move], w, h) > zoom;
  const others = lacks ? STEPS.flatMap((by) => [-by, by]).map((by) => ({ by, move: at(around[FAR + by]!) })) : [];
  return { move, zoom, others };
}
