import { choice } from '../params/choice';
import { number } from '../params/number';
import { ramp } from '../params/ramp';
import { seed } from '../params/seed';
import { size } from '../params/size';
import { cloudPlane } from '../picture/noise';
import { Picture } from '../picture/picture';
import { defineSource } from './define';
import { rampAt } from '../params/ramp';

const STEPS = 512;
const MOVES = 'Movement';

/** Clouds, smoke, mist: noise in layers that changes by itself. */
export const clouds = defineSource({
  type: 'clouds',
  title: 'Clouds',
  words: ['fog', 'smoke', 'mist', 'haze', 'noise', 'fractal', 'turbulence', 'steam', 'dust', 'water', 'texture'],
  help: 'Clouds, smoke or mist that change by themselves, as a picture or half clear over what lies below. Relatives: Gradient; Turbulence, which bends a picture by them.',
  params: {
    shows: choice({
      label: 'Shows',
      default: 'cover',
      options: [
        { value: 'cover', label: 'clouds, clear between' },
        { value: 'picture', label: 'a whole picture' },
      ],
      help: 'Whether what lies below is seen between them.',
    }),
    form: choice({
      label: 'Form',
      default: 'soft',
      options: [
        { value: 'soft', label: 'soft' },
        { value: 'veins', label: 'veins' },
      ],
      help: 'Whether they are heaps or veins.',
    }),
    colours: ramp({
      label: 'Colours',
      default: [
        [0, [0.62, 0.66, 0.74]],
        [1, [0.95, 0.95, 0.97]],
      ],
      help: 'Their colours, from thin to thick.',
    }),
    grain: number({
      label: 'Grain',
      unit: 'px',
      default: 320,
      min: 2,
      max: 8192,
      slider: [20, 1200],
      help: 'How large the largest of them are.',
    }),
    stretch: number({
      label: 'Stretch',
      unit: '%',
      default: 1.6,
      min: 0.05,
      max: 20,
      slider: [0.2, 5],
      help: 'How much wider than tall they are.',
    }),
    detail: number({
      label: 'Detail',
      unit: '',
      default: 5,
      min: 1,
      max: 9,
      slider: [1, 8],
      help: 'How many finer layers lie over the largest.',
    }),
    rough: number({
      label: 'Roughness',
      unit: '%',
      default: 0.55,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How strong the finer layers are.',
    }),
    cover: number({
      label: 'How much',
      unit: '%',
      default: 0.5,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much of the picture they take.',
    }),
    softness: number({
      label: 'Softness',
      unit: '%',
      default: 0.6,
      min: 0.01,
      max: 2,
      slider: [0.02, 1.5],
      help: 'From how thin to how thick they go.',
    }),
    changes: number({
      label: 'Change',
      unit: '%',
      default: 0.25,
      min: -20,
      max: 20,
      slider: [0, 2],
      help: 'How much they change in a second; 100 is another picture altogether.',
      group: MOVES,
    }),
    driftX: number({
      label: 'Drift sideways',
      unit: 'px',
      default: 30,
      min: -8192,
      max: 8192,
      slider: [-300, 300],
      help: 'How far they go in a second, to the right.',
      group: MOVES,
    }),
    driftY: number({
      label: 'Drift down',
      unit: 'px',
      default: 0,
      min: -8192,
      max: 8192,
      slider: [-300, 300],
      help: 'How far they go in a second, downwards; smoke rises with less than 0.',
      group: MOVES,
    }),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number, other clouds.' }),
    size: size({ label: 'Size', default: [1280, 720], help: 'How large the picture is.' }),
  },
  timed: false,
  moment: (_, { seconds }) => ({ seconds }),
  draw(v, { kernels, arena, size: { w, h } }) {
    const { seconds = 0 } = v as unknown as { seconds?: number };
    const picture = Picture.make(arena, { x: 0, y: 0, w, h });
    const high = v.cover * 2 - 1;
    const whole = v.shows === 'picture';
    arena.scratch(w * h * 4 + STEPS * 16, (at) => {
      cloudPlane({ kernels, arena }, at, w, h, {
        grain: [v.grain * Math.sqrt(v.stretch), v.grain / Math.sqrt(v.stretch)],
        // counted from the middle, so that another size is another cut of the same clouds
        from: [-Math.floor(w / 2), -Math.floor(h / 2)],
        moved: [v.driftX * seconds, v.driftY * seconds],
        turned: v.changes * seconds,
        layers: v.detail,
        rough: v.rough,
        veins: v.form === 'veins',
        seed: v.seed,
      });
      const table = arena.floats(at + w * h * 4, STEPS * 4);
      for (let i = 0; i < STEPS; i++) {
        const share = i / (STEPS - 1);
        const alpha = whole ? 1 : share * share * (3 - 2 * share);
        table.set([...rampAt(v.colours, share).map((c) => c * alpha), alpha], i * 4);
      }
      // noise in layers keeps about within ±½, veins of it between 0 and 1
      const [middle, reach] = [(v.form === 'veins' ? 0.6 : 0) - high * 0.6, Math.max(0.005, v.softness / 2)];
      kernels.tableColours(at, picture.at, w * h, middle - reach, middle + reach, at + w * h * 4, STEPS);
    });
    return picture;
  },
});
