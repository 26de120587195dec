import { readCdl, writeCdl, type Cdl } from '../../formats/cdl-file';
import { number } from '../../params/number';
import { definePass } from '../define';
import type { ChannelCurves } from '../define';
import { ofResult } from './saturation';
import { curveRunner } from './tables';

const CHANNELS = ['Red', 'Green', 'Blue'] as const;
const dials = (label: string, begins: number, min: number, max: number, slider: [number, number], help: string) =>
  CHANNELS.map((channel) =>
    number({
      group: label,
      label: `${label} ${channel.toLowerCase()}`,
      unit: '',
      default: begins,
      min,
      max,
      slider,
      help,
    }),
  ) as [ReturnType<typeof number>, ReturnType<typeof number>, ReturnType<typeof number>];
const slope = dials('Slope', 1, 0, 16, [0, 2], 'What the channel is multiplied with.');
const offset = dials('Offset', 0, -4, 4, [-0.5, 0.5], 'What is added to it then.');
const power = dials('Power', 1, 0.01, 16, [0.4, 2.5], 'The power that it is raised to then.');

const PARTS = ['R', 'G', 'B'] as const;
const NAMES = ['slope', 'offset', 'power'] as const;
type Numbered = Record<`${(typeof NAMES)[number]}${(typeof PARTS)[number]}` | 'saturation', number>;
/** Its dials as a decision list, and back. */
const cdlFrom = (v: Numbered): Cdl => {
  const three = (name: (typeof NAMES)[number]) => PARTS.map((part) => v[`${name}${part}`]) as unknown as Cdl['slope'];
  return { slope: three('slope'), offset: three('offset'), power: three('power'), saturation: v.saturation };
};
const valuesOf = (read: Cdl): Numbered =>
  Object.fromEntries([
    ...NAMES.flatMap((name) => PARTS.map((part, i) => [`${name}${part}`, read[name][i]])),
    ['saturation', read.saturation],
  ]) as Numbered;

const held = (v: number): number => Math.min(1, Math.max(0, v));
/** One channel of a colour decision list, before saturation. Source: ASC CDL 1.2. */
export const cdlOf = (v: number, slopeBy: number, offsetBy: number, powerBy: number): number =>
  held(v * slopeBy + offsetBy) ** powerBy;

const curvesOf = (v: Numbered): ChannelCurves => ({
  of: [
    (x) => cdlOf(x, v.slopeR, v.offsetR, v.powerR),
    (x) => cdlOf(x, v.slopeG, v.offsetG, v.powerG),
    (x) => cdlOf(x, v.slopeB, v.offsetB, v.powerB),
  ],
  saturation: v.saturation,
});

/** Slope, offset, power and saturation: what other programs exchange as a colour decision list. */
export const cdl = definePass({
  type: 'cdl',
  title: 'Slope, offset, power',
  group: 'grade',
  words: ['cdl', 'colour decision list', 'asc', 'slope offset power', 'exchange a grade', 'cc', 'ccc'],
  help: 'The grade that .cc, .ccc and .cdl files hold, number by number. Relatives: Wheels, for grading by hand; Table.',
  params: {
    slopeR: slope[0],
    slopeG: slope[1],
    slopeB: slope[2],
    offsetR: offset[0],
    offsetG: offset[1],
    offsetB: offset[2],
    powerR: power[0],
    powerG: power[1],
    powerB: power[2],
    saturation: ofResult,
  },
  files: {
    reads: ['.cc', '.ccc', '.cdl'],
    read: (text, file) => readCdl(text, file).map(({ id, cdl: read }) => ({ name: id, values: valuesOf(read) })),
    writes: Object.fromEntries(
      (['cc', 'ccc', 'cdl'] as const).map((kind) => [
        `.${kind}`,
        (v: Record<string, unknown>, name: string) => writeCdl(kind, name, cdlFrom(v as never)),
      ]),
    ),
  },
  idle: (v) =>
    v.saturation === 1 &&
    [v.slopeR, v.slopeG, v.slopeB, v.powerR, v.powerG, v.powerB].every((n) => n === 1) &&
    [v.offsetR, v.offsetG, v.offsetB].every((n) => n === 0),
  curves: curvesOf,
  prepare: (v, tools) => curveRunner(curvesOf(v), tools),
});
