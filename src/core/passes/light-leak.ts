import { choice } from '../params/choice';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { seed } from '../params/seed';
import { cloudPlane } from '../picture/noise';
import { Picture } from '../picture/picture';
import { definePass } from './define';

/** Directions that light comes in from: the way into the picture. */
const SIDES = { left: [1, 0], right: [-1, 0], top: [0, 1], bottom: [0, -1] } as const;

/** Light leak: light that came into the camera beside the lens. */
export const lightLeak = definePass({
  type: 'light-leak',
  title: 'Light leak',
  group: 'light',
  words: ['film burn', 'warm flare', 'old camera', 'summer', 'memories', 'light from the side', 'dreamy'],
  help: 'Lets soft light come in from a side and wander, as through a crack in an old camera. Relatives: Glow, Light rays, Flicker.',
  params: {
    side: choice({
      label: 'From',
      default: 'left',
      options: [
        { value: 'left', label: 'the left' },
        { value: 'right', label: 'the right' },
        { value: 'top', label: 'the top' },
        { value: 'bottom', label: 'the bottom' },
      ],
      help: 'Which side it comes in at.',
    }),
    strength: number({
      label: 'Strength',
      unit: '%',
      default: 0.9,
      min: 0,
      max: 2,
      slider: [0, 2],
      help: 'How bright it is.',
    }),
    far: number({
      label: 'Comes in by',
      unit: '%',
      default: 0.5,
      min: 0.01,
      max: 3,
      slider: [0.05, 1.5],
      help: 'How far it comes, as a share of the picture.',
    }),
    grain: number({
      label: 'Patches',
      unit: 'px',
      default: 420,
      min: 12,
      max: 4096,
      slider: [60, 1600],
      help: 'How large the patches of light are.',
    }),
    pace: number({
      label: 'Wanders',
      unit: '%',
      default: 0.5,
      min: -20,
      max: 20,
      slider: [0, 3],
      help: 'How fast it changes; 100 is another leak every second.',
    }),
    colour: colour({ label: 'Colour', default: [1, 0.46, 0.16], help: 'The colour of the light.' }),
    core: colour({ label: 'Brightest', default: [1, 0.9, 0.6], help: 'The colour where it is brightest.' }),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number is another leak.' }),
  },
  idle: (v) => v.strength === 0,
  reach: () => 0,
  moment: (_, frame) => ({ beat: frame / 24 }),
  run(picture, v, { kernels, arena, size }) {
    const { beat = 0 } = v as unknown as { beat?: number };
    const { x, y, w, h } = picture.rect;
    const out = Picture.make(arena, picture.rect);
    kernels.copy(picture.at, out.at, out.pixels);
    const [dx, dy] = SIDES[v.side as keyof typeof SIDES];
    const long = v.far * (dx ? size.w : size.h);
    const form = {
      grain: [v.grain, v.grain] as const,
      from: [x, y] as const,
      moved: [v.grain * 0.4 * v.pace * beat, 0] as const,
      ...{ turned: v.pace * beat, layers: 2, rough: 0.4, veins: false, seed: Math.round(v.seed) },
    };
    arena.scratch(out.pixels * 8 + 32, (light) => {
      const near = light + out.pixels * 4;
      cloudPlane({ kernels, arena }, light, w, h, form);
      kernels.rampPlane(light, out.pixels, -0.25, 0.9);
      // full at the side, nothing once it has come so far
      const [left, top] = [dx < 0 ? size.w : 0, dy < 0 ? size.h : 0];
      kernels.linearPlane(near, w, h, x - left, y - top, dx * long, dy * long, 0, 0);
      kernels.timesPlane(light, near, out.pixels);
      kernels.timesPlane(light, near, out.pixels);
      const tinted = (of: readonly [number, number, number], by: number) =>
        of.map((c) => c * by) as [number, number, number];
      kernels.screenPlane(out.at, light, out.pixels, ...tinted(v.colour, v.strength));
      // its heart is the light times itself
      kernels.timesPlane(light, light, out.pixels);
      kernels.screenPlane(out.at, light, out.pixels, ...tinted(v.core, 0.8 * v.strength));
    });
    kernels.limitSpan(out.at, out.pixels);
    return out;
  },
});
