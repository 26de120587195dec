import { LRUCache } from 'lru-cache';
import { multiply, scaling, translation, type Matrix } from '../picture/matrix';
import { Picture } from '../picture/picture';
import { place } from '../picture/transform';
import { boolean } from '../params/boolean';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { track, type TrackNow } from '../params/track';
import { trackNamed } from '../track/known';
import { corrections, coveringZoom, type Steadying } from '../track/steady';
import { definePass } from './define';

const share = (label: string, help: string) =>
  number({ label, unit: '%', default: 1, min: 0, max: 1, slider: [0, 1], help });

/** From here on an enlargement is worth a warning. */
const MUCH = 1.2;

/** Takes the sway of a camera away. Relatives: Shake, which adds some, and Straighten. */
export const steady = definePass({
  type: 'steady',
  title: 'Steady',
  group: 'frame',
  words: ['stabilise', 'stabilize', 'stop the shaking', 'hand-held', 'smooth camera', 'unshake', 'tripod'],
  help: 'Moves every frame back by what a track of the picture says it swayed, and enlarges it just enough that no corner is ever empty. Relatives: Shake, Straighten.',
  params: {
    track: track({
      label: 'Track',
      help: 'Of the layer’s own clip: a Sway, or any track of something that should stand still.',
    }),
    way: choice({
      label: 'Camera',
      default: 'smooth',
      options: [
        { value: 'smooth', label: 'moves smoothly' },
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
    position: share('Position', 'How much of its shift is taken away.'),
    rotation: share('Rotation', 'How much of its turning is taken away.'),
    scale: share('Size', 'How much of its coming nearer and going away is taken away.'),
    cover: boolean({
      label: 'Enlarge to cover',
      default: true,
      help: 'Just enough that no corner is empty on any frame of the track.',
    }),
  },
  idle: (v) => v.track.name === '' || (v.position === 0 && v.rotation === 0 && v.scale === 0),
  reach: () => Infinity,
  moment: (v) => steadied(v.track, { ...v, smooth: v.way === 'smooth' ? v.over : null }, v.cover),
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
    const { move, zoom } = v as unknown as Steadied;
    const [a, b, c, d, e, f] = move;
    const { scale } = v.track;
    const moved = multiply(scaling(zoom, zoom), [a, b, c, d, e * scale, f * scale]);
    const map = multiply(translation(w / 2, h / 2), multiply(moved, translation(-w / 2, -h / 2)));
    return place(tools, picture, map, 1, { x: 0, y: 0, w, h }) ?? Picture.make(tools.arena, { x: 0, y: 0, w: 0, h: 0 });
  },
});

interface Steadied {
  /** pixels at full size from the middle, before the enlargement */
  move: Matrix;
  zoom: number;
}
const UNMOVED: Steadied = { move: [1, 0, 0, 1, 0, 0], zoom: 1 };
/** All frames of the tracks that were steadied last, by what they depend on. */
const known = new LRUCache<string, { moves: Matrix[]; zoom: number }>({ max: 16 });

function steadied(track: TrackNow, how: Steadying, cover: boolean): Steadied {
  const found = track.name ? trackNamed(track.name) : null;
  if (!found) return UNMOVED;
  const { position, rotation, scale, smooth } = how;
  const key = JSON.stringify([track.name, track.size, position, rotation, scale, smooth]);
  let all = known.get(key);
  if (!all) {
    const moves = corrections(found.samples, how);
    known.set(key, (all = { moves, zoom: coveringZoom(moves, track.size.w, track.size.h) }));
  }
  const at = Math.min(all.moves.length - 1, Math.max(0, Math.floor(track.frame + 1e-6) - found.samples.first));
  return { move: all.moves[at] ?? UNMOVED.move, zoom: cover ? all.zoom : 1 };
}
