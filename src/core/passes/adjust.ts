import { toDisplay, toLinear } from '../picture/light';
import { number } from '../params/number';
import { definePass } from './define';

const STEPS = 1024;
/** Linear light of each step of the tables, which go over 0…2. */
const LIGHT = Float64Array.from({ length: STEPS + 1 }, (_, i) => toLinear((2 * i) / STEPS));
const percent = (label: string, help: string) =>
  number({ label, unit: '%', default: 0, min: -1, max: 1, slider: [-1, 1], help });

/**
 * Light and colour of a layer. Exposure, temperature and tint are gains on linear light; contrast turns about middle grey
 * on display-encoded values; saturation moves away from the BT.709 luma. All but saturation are one curve per channel.
 */
export const adjust = definePass({
  type: 'adjust',
  title: 'Adjust',
  group: 'grade',
  words: [
    'exposure',
    'brightness',
    'contrast',
    'saturation',
    'temperature',
    'white balance',
    'warmer',
    'colder',
    'darker',
    'grade',
    'colour correction',
  ],
  help: 'Exposure, contrast, saturation, temperature and tint in one pass. Exposure and balance work on light, as a camera does.',
  params: {
    exposure: number({
      label: 'Exposure',
      unit: 'stops',
      default: 0,
      min: -10,
      max: 10,
      slider: [-3, 3],
      help: 'Light, in doublings.',
    }),
    contrast: percent('Contrast', 'Spread of the tones about middle grey.'),
    saturation: number({
      label: 'Saturation',
      unit: '%',
      default: 1,
      min: 0,
      max: 4,
      slider: [0, 2],
      help: 'Strength of the colours; 0 % is grey.',
    }),
    temperature: percent('Temperature', 'Towards blue (negative) or amber (positive).'),
    tint: percent('Tint', 'Towards green (negative) or magenta (positive).'),
  },
  idle: (v) => v.exposure === 0 && v.contrast === 0 && v.saturation === 1 && v.temperature === 0 && v.tint === 0,
  prepare(v, { kernels, arena, scratch }) {
    const gain = 2 ** v.exposure;
    const warm = 2 ** (v.temperature * 0.8);
    const magenta = 2 ** (v.tint * 0.4);
    const gains = [gain * warm * Math.sqrt(magenta), gain / magenta, (gain / warm) * Math.sqrt(magenta)];
    const slope = v.contrast >= 0 ? 1 + 2 * v.contrast : 1 + v.contrast;
    const at = scratch(3 * STEPS * 8);
    const tables = arena.floats(at, 3 * STEPS * 2);
    gains.forEach((g, channel) => {
      const curve = (i: number) => Math.max(0, (toDisplay(g * LIGHT[i]!) - 0.46) * slope + 0.46);
      for (let i = 0, to = channel * STEPS * 2, value = curve(0); i < STEPS; i++) {
        const next = curve(i + 1);
        tables[to++] = value;
        tables[to++] = next - value;
        value = next;
      }
    });
    return (src, dst, n) => kernels.adjustSpan(src, dst, n, at, STEPS, v.saturation);
  },
});
