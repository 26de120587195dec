import { angle } from '../params/angle';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { point } from '../params/point';
import { multiply, rotation, scaling, translation, type Matrix } from '../picture/matrix';
import { grow } from '../picture/rect';
import { partOf } from '../picture/rows';
import { furthestFrom, smeared } from '../picture/smear';
import { EDGES } from './blur';
import { definePass } from './define';

type Way = 'line' | 'zoom' | 'spin';
/** Where pixels are after a share of the way, and how long the longest way is in pixels. */
function wayOf(
  v: { way: string; angle: number; length: number; zoom: number; spin: number; about: readonly [number, number] },
  size: { w: number; h: number },
): { way: (share: number) => Matrix; long: number } {
  const [x, y] = v.about;
  const furthest = furthestFrom(v.about, size);
  const about = (own: Matrix): Matrix => multiply(multiply(translation(x, y), own), translation(-x, -y));
  if ((v.way as Way) === 'zoom') {
    const most = Math.log(1 + v.zoom);
    const larger = (share: number) => Math.exp(most * share);
    return { way: (share) => about(scaling(larger(share), larger(share))), long: v.zoom * furthest };
  }
  if ((v.way as Way) === 'spin')
    return { way: (share) => about(rotation(v.spin * share)), long: ((v.spin * Math.PI) / 180) * furthest };
  const turn = (v.angle * Math.PI) / 180;
  const [dx, dy] = [Math.cos(turn) * v.length, Math.sin(turn) * v.length];
  return { way: (share) => translation(dx * share, dy * share), long: v.length };
}
const NOTHING = 0.05;

/** Blur as by movement: along a line, towards a point or about it. */
export const movingBlur = definePass({
  type: 'moving-blur',
  title: 'Moving blur',
  group: 'focus',
  words: ['motion blur', 'directional blur', 'zoom blur', 'radial blur', 'spin blur', 'speed', 'rush', 'smear'],
  help: 'Blurs as if the picture, or the camera, had moved: along a line, towards a point, or round it. Relatives: Blur; the motion blur of a layer’s own place.',
  params: {
    way: choice({
      label: 'Moves',
      default: 'line',
      options: [
        { value: 'line', label: 'along a line' },
        { value: 'zoom', label: 'towards a point' },
        { value: 'spin', label: 'round a point' },
      ],
      help: 'Which way it moves.',
    }),
    length: number({
      label: 'Length',
      unit: 'px',
      default: 24,
      begins: 60,
      min: 0,
      max: 2000,
      slider: [0, 300],
      help: 'How far it moves, half of it to either side.',
      when: { choice: 'way', is: 'line' },
    }),
    angle: angle({
      label: 'Direction',
      default: 0,
      help: 'Where it moves: 0° is level.',
      when: { choice: 'way', is: 'line' },
    }),
    zoom: number({
      label: 'Nearer by',
      unit: '%',
      default: 0.2,
      min: 0,
      max: 4,
      slider: [0, 1],
      help: 'How much larger the picture gets meanwhile.',
      when: { choice: 'way', is: 'zoom' },
    }),
    spin: angle({
      label: 'Turns by',
      default: 12,
      help: 'How far it turns meanwhile.',
      when: { choice: 'way', is: 'spin' },
    }),
    about: point({
      label: 'Point',
      default: [0, 0],
      help: 'What it moves towards, or turns about.',
      when: { choice: 'way', is: ['zoom', 'spin'] },
    }),
    edges: EDGES,
  },
  idle: (v) => (v.way === 'line' ? v.length < NOTHING : v.way === 'zoom' ? v.zoom < 1e-4 : Math.abs(v.spin) < 1e-3),
  reach: (v) => (v.way === 'line' ? Math.ceil(v.length / 2) + 2 : Infinity),
  run(picture, v, tools) {
    const { way, long } = wayOf(v, tools.size);
    const extend = v.edges === 'extend';
    // along a line it goes beyond the picture; what moves about a point stays within it
    const room = extend || v.way !== 'line' ? 0 : Math.ceil(v.length / 2) + 1;
    const whole = room ? partOf(tools, picture, grow(picture.rect, room)) : picture.retain();
    const out = smeared(tools, whole, way, Math.abs(long), { sided: false, extend });
    whole.release();
    return out;
  },
});
