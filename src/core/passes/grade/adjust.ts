import { toDisplay, toLinear } from '../../picture/light';
import { number } from '../../params/number';
import { definePass, type ChannelCurves } from '../define';
import { curveRunner } from './tables';

const percent = (label: string, help: string) =>
  number({ label, unit: '%', default: 0, min: -1, max: 1, slider: [-1, 1], help });

function curvesOf(v: Record<'exposure' | 'contrast' | 'saturation' | 'temperature' | 'tint', number>): ChannelCurves {
  const gain = 2 ** v.exposure;
  const warm = 2 ** (v.temperature * 0.8);
  const magenta = 2 ** (v.tint * 0.4);
  const slope = v.contrast >= 0 ? 1 + 2 * v.contrast : 1 + v.contrast;
  const of = (by: number) => (x: number) => Math.max(0, (toDisplay(by * toLinear(x)) - 0.46) * slope + 0.46);
  const root = Math.sqrt(magenta);
  return { of: [of(gain * warm * root), of(gain / magenta), of((gain / warm) * root)], saturation: v.saturation };
}

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
  curves: curvesOf,
  prepare: (v, tools) => curveRunner(curvesOf(v), tools),
});
