import { number } from '../params/number';
import { Picture } from '../picture/picture';
import { together, whole } from './at-moments';
import { definePass } from './define';

const momentsOf = (v: { moments: number; apart: number }): number[] => {
  const side = whole(v.moments);
  return Array.from({ length: 2 * side }, (_, i) => (i < side ? i - side : i - side + 1) * Math.max(1, whole(v.apart)));
};

/** Median over time: what is there most of the time. */
export const median = definePass({
  type: 'median',
  title: 'Median over time',
  group: 'time',
  words: ['clean plate', 'remove people', 'remove what moves', 'empty street', 'background', 'denoise', 'rain removal'],
  help: 'Shows every pixel as it is most of the time around the present: what only passes is gone, and so is noise. For a clean plate of a camera that stands still. Relatives: Difference key, Steady.',
  params: {
    moments: number({
      label: 'Moments each side',
      unit: '',
      default: 3,
      min: 0,
      max: 6,
      slider: [0, 6],
      help: 'How many earlier and how many later ones are looked at.',
    }),
    apart: number({
      label: 'Frames between',
      unit: '',
      default: 8,
      min: 1,
      max: 240,
      slider: [1, 48],
      help: 'How many frames lie between one and the next: more for what passes slowly.',
    }),
  },
  idle: (v) => whole(v.moments) === 0,
  reach: () => 0,
  moments: momentsOf,
  run(picture, v, tools) {
    const { kernels, arena } = tools;
    const all = together(picture, tools, momentsOf(v).length).filter((one) => one !== null);
    const out = Picture.make(arena, all[0]!.rect);
    // their addresses, then room for as many pixels
    const list = 16 * Math.ceil(all.length / 4);
    arena.scratch(list + all.length * 16, (at) => {
      arena.bytes(at, all.length * 4).set(new Uint8Array(Uint32Array.from(all, (one) => one.at).buffer));
      kernels.medianOf(at, all.length, at + list, out.at, out.pixels);
    });
    all.forEach((one) => one.release());
    return out;
  },
});
