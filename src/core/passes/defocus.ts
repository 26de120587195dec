import { angle } from '../params/angle';
import { number } from '../params/number';
import { apertureRows, throughAperture } from '../picture/aperture';
import { bordered } from '../picture/bordered';
import { Picture } from '../picture/picture';
import { addEnlarged, onGrid, reducedBy } from '../picture/reduced';
import { definePass } from './define';

/** An aperture of more pixels than this is computed smaller, at most so many times halved. */
const [LARGE, MOST_TIMES] = [12, 6];

const timesFor = (radius: number): number =>
  Math.max(0, Math.min(MOST_TIMES, Math.ceil(Math.log2(Math.max(radius, 1) / LARGE))));

/** Defocus: every point becomes the shape of the aperture, in linear light, so that bright spots become bright discs. */
export const defocus = definePass({
  type: 'defocus',
  title: 'Defocus',
  group: 'focus',
  words: [
    'bokeh',
    'lens blur',
    'out of focus',
    'aperture',
    'discs of light',
    'blurred lights',
    'depth of field',
    'camera blur',
  ],
  help: 'Blurs as a lens does that is set to another distance: bright spots become discs, or have as many corners as the aperture has blades. An area with a soft mask sets what stays sharp. Relatives: Blur, Focus band.',
  params: {
    radius: number({
      label: 'Radius',
      unit: 'px',
      default: 10,
      min: 0,
      max: 400,
      slider: [0, 80],
      help: 'How large a point becomes.',
    }),
    blades: number({
      label: 'Blades',
      unit: '',
      default: 6,
      min: 0,
      max: 12,
      slider: [0, 12],
      help: 'Corners of the aperture; below three it is round.',
    }),
    turn: angle({ label: 'Turned', default: 12, help: 'How the aperture is turned.' }),
    bloom: number({
      label: 'Bright spots',
      unit: '%',
      default: 1,
      min: 0,
      max: 20,
      slider: [0, 3],
      help: 'How much brighter bright spots are taken than the picture can show, so that their discs stand out.',
    }),
    from: number({
      label: 'Brighter than',
      unit: '%',
      default: 0.8,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'What counts as a bright spot.',
    }),
  },
  idle: (v) => v.radius < 0.05,
  reach({ radius }) {
    const cell = 2 ** timesFor(radius);
    return (Math.ceil(radius / cell) + 2) * cell + cell;
  },
  run(picture, v, tools) {
    const { kernels, arena } = tools;
    const times = timesFor(v.radius);
    const radius = v.radius / 2 ** times;
    const room = (Math.ceil(radius) + 1) * 2 ** times;
    const whole = bordered(
      tools,
      picture,
      onGrid(
        {
          ...picture.rect,
          x: picture.rect.x - room,
          y: picture.rect.y - room,
          w: picture.rect.w + 2 * room,
          h: picture.rect.h + 2 * room,
        },
        times,
      ),
    );
    kernels.toLinearSpan(whole.at, whole.pixels);
    if (v.bloom > 0) kernels.liftBright(whole.at, whole.pixels, v.from ** 2.2, v.bloom);
    const small = reducedBy(tools, whole, times);
    whole.release();
    const rows = apertureRows(radius, Math.round(v.blades), v.turn);
    const soft = throughAperture(tools, small, rows, Math.ceil(radius) + 1);
    small.release();
    // at full size it lies where the picture lies
    const large = times ? Picture.make(arena, picture.rect) : soft;
    if (times) {
      kernels.fill(large.at, large.pixels, 0, 0, 0, 0);
      addEnlarged(tools, soft, times, large, 1);
    }
    kernels.limitSpan(large.at, large.pixels);
    kernels.toDisplaySpan(large.at, large.pixels);
    return large;
  },
});
