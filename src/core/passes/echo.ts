import { choice } from '../params/choice';
import { number } from '../params/number';
import { BLEND_MODES } from '../picture/blend';
import { Picture } from '../picture/picture';
import { union } from '../picture/rect';
import { blendRows } from '../picture/rows';
import { whole } from './at-moments';
import { definePass } from './define';

/** Afterimages: fading pictures of other moments together with the present one. */
export const echo = definePass({
  type: 'echo',
  title: 'Afterimages',
  group: 'time',
  words: ['echo', 'trail', 'ghost', 'motion trail', 'repeat', 'delay', 'smear'],
  help: 'Lets earlier or later moments show together with the present one, each fainter than the one before. Before Place it follows what moves in the footage, after Place also how the layer moves. Relatives: Motion blur in Place.',
  params: {
    copies: number({
      label: 'Copies',
      unit: '',
      default: 4,
      min: 0,
      max: 24,
      slider: [0, 12],
      help: 'How many moments.',
    }),
    spacing: number({
      label: 'Frames between',
      unit: '',
      default: 3,
      min: 1,
      max: 240,
      slider: [1, 24],
      help: 'How many frames lie between one and the next.',
    }),
    fade: number({
      label: 'Fade',
      unit: '%',
      default: 0.4,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much fainter each is than the one before.',
    }),
    way: choice({
      label: 'Shows',
      default: 'before',
      options: [
        { value: 'before', label: 'earlier moments' },
        { value: 'after', label: 'later moments' },
      ],
      help: 'Which side of the present they are on.',
    }),
    lies: choice({
      label: 'They lie',
      default: 'behind',
      options: [
        { value: 'behind', label: 'behind the present' },
        { value: 'front', label: 'in front of it' },
        { value: 'lighter', label: 'where they are lighter' },
      ],
      help: 'How they come together.',
    }),
  },
  idle: (v) => whole(v.copies) === 0 || v.fade === 1,
  reach: () => 0,
  moments: (v) =>
    Array.from(
      { length: whole(v.copies) },
      (_, i) => (i + 1) * Math.max(1, whole(v.spacing)) * (v.way === 'before' ? -1 : 1),
    ),
  run(picture, v, { kernels, arena, moment }) {
    const others = Array.from({ length: whole(v.copies) }, (_, i) => moment(i));
    // placed pictures may lie anywhere in the shot
    const rect = others.reduce((sum, other) => (other ? union(sum, other.rect) : sum), picture.rect);
    const out = Picture.make(arena, rect);
    kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    const mode = BLEND_MODES.indexOf(v.lies === 'lighter' ? 'lighten' : 'normal');
    const lay = (on: Picture) => blendRows({ kernels }, out, on, on.rect, mode);
    if (v.lies === 'front') lay(picture);
    // the faintest, furthest one lies lowest
    for (const [i, other] of [...others.entries()].reverse()) {
      if (!other) continue;
      const faded = Picture.make(arena, other.rect);
      kernels.fill(faded.at, faded.pixels, 0, 0, 0, 0);
      kernels.addScaled(other.at, faded.at, faded.pixels, (1 - v.fade) ** (i + 1));
      lay(faded);
      faded.release();
    }
    if (v.lies !== 'front') lay(picture);
    return out;
  },
});
