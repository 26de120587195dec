import { angle } from '../params/angle';
import { number } from '../params/number';
import { point } from '../params/point';
import { bent } from '../picture/bent';
import { definePass } from './define';

/** Kaleidoscope: a slice of the picture, mirrored round about a place; two slices are one mirror. */
export const kaleidoscope = definePass({
  type: 'kaleidoscope',
  title: 'Kaleidoscope',
  group: 'distort',
  words: ['mirror', 'symmetry', 'reflect', 'slices', 'mandala', 'flip half'],
  help: 'Mirrors a slice of the picture round about a place. With two slices it is one mirror through that place. Relatives: Repeat; Place for flipping a layer.',
  params: {
    slices: number({
      label: 'Slices',
      unit: '',
      default: 8,
      min: 2,
      max: 64,
      slider: [2, 24],
      help: 'How many there are round about; each is a mirror of the next.',
    }),
    turn: angle({
      label: 'Slice',
      default: 0,
      help: 'Where the middle of the slice that is kept lies: 0° to the right, 90° down.',
    }),
    about: point({ label: 'Place', default: [0, 0], help: 'What they lie about. It can follow a track.' }),
  },
  reach: () => Infinity,
  run(picture, v, tools) {
    const [cx, cy] = v.about;
    const wide = (2 * Math.PI) / Math.max(2, 2 * Math.round(v.slices / 2));
    const first = (v.turn * Math.PI) / 180;
    return bent(tools, picture, (x, y, to) => {
      const [dx, dy] = [x - cx, y - cy];
      const off = Math.atan2(dy, dx) - first + wide / 2;
      const slice = Math.floor(off / wide);
      const within = off - slice * wide;
      const turned = first - wide / 2 + (slice % 2 ? wide - within : within);
      const far = Math.sqrt(dx * dx + dy * dy);
      to[0] = cx + far * Math.cos(turned);
      to[1] = cy + far * Math.sin(turned);
    });
  },
});
