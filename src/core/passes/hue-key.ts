import { choice } from '../params/choice';
import { number } from '../params/number';
import { COMBINE, definePass } from './define';
import { cutByTable, RANGE_RULED } from './range-key';

/** How much a hue belongs to a range. @param hue, centre degrees @param width of the whole range, @param softness of the ramp beyond it on each side */
export function hueShare(hue: number, centre: number, width: number, softness: number): number {
  const away = Math.abs(((((hue - centre) % 360) + 540) % 360) - 180);
  const beyond = away - width / 2;
  return beyond <= 0 ? 1 : beyond >= softness ? 0 : 1 - beyond / softness;
}

/** Hue key: keeps or removes a range of the colour circle. */
export const hueKey = definePass({
  type: 'hue-key',
  title: 'Hue key',
  group: 'cut out',
  fine: true,
  words: ['colour range', 'select a colour', 'only red', 'remove a colour', 'colour key', 'matte', 'isolate'],
  help: 'Keeps or removes one range of hues; greys belong to none. Relatives: Colour key for a screen, Brightness key.',
  params: {
    keep: choice({
      label: 'Keep',
      default: 'range',
      options: [
        { value: 'range', label: 'only this range' },
        { value: 'rest', label: 'all but this range' },
      ],
      help: 'What stays.',
    }),
    hue: number({
      label: 'Hue',
      unit: '°',
      default: 0,
      min: -360,
      max: 720,
      slider: [0, 360],
      help: 'Middle of the range on the colour circle: 0 red, 60 yellow, 120 green, 240 blue.',
    }),
    width: number({
      label: 'Width',
      unit: '°',
      default: 50,
      min: 0,
      max: 360,
      slider: [0, 180],
      help: 'How much of the circle belongs wholly.',
    }),
    softness: number({
      label: 'Softness',
      unit: '°',
      default: 20,
      min: 0,
      max: 180,
      slider: [0, 90],
      help: 'Ramp beyond the range on each side.',
    }),
    saturation: number({
      label: 'Least saturation',
      unit: '%',
      default: 0.15,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'Paler colours belong to no hue.',
    }),
    ...RANGE_RULED,
    combine: COMBINE,
  },
  reach: () => 0,
  run(picture, v, tools) {
    const softness = Math.max(v.softness, 0.01);
    const saturation = [v.saturation * 0.5, Math.max(v.saturation, 0.01)] as const;
    return cutByTable(
      picture,
      v,
      tools,
      (turn) => hueShare(turn * 360, v.hue, v.width, softness),
      (...where) => tools.kernels.hueKeySpan(...where, ...saturation, v.keep === 'range' ? 1 : 0),
    );
  },
});
