import { curve, curveOf, FLAT, isFlat, type CurvePoint } from '../../params/curve';
import { definePass } from '../define';
import { shareTable } from './tables';

const over = (label: string, of: 'hue' | 'brightness' | 'saturation', help: string) =>
  curve({ label, over: of, default: FLAT, help });

/** A curve about its middle, as −1…1. */
function bent(points: readonly CurvePoint[]): (x: number) => number {
  const of = curveOf(points);
  return (x) => 2 * of(x) - 1;
}
/** The same around the circle of hues: where it begins it ends. */
function around(points: readonly CurvePoint[]): (x: number) => number {
  const [first, last] = [points[0]!, points.at(-1)!];
  const round = [[last[0] - 1, last[1]], ...points, [first[0] + 1, first[1]]] as CurvePoint[];
  return (x) => {
    const i = round.findIndex(([from], k) => k > 0 && from >= x);
    const [[x0, y0], [x1, y1]] = [round[i - 1]!, round[i]!];
    const t = x1 > x0 ? (x - x0) / (x1 - x0) : 0;
    // level at each point, so that no hue goes beyond what was asked for
    return 2 * (y0 + (y1 - y0) * t * t * (3 - 2 * t)) - 1;
  };
}
const factor = (v: number): number => (v >= 0 ? 1 + 2 * v : 1 + v);

/** Single hues turned, strengthened and brightened; saturation by brightness and by saturation. */
export const hueCurves = definePass({
  type: 'hue-curves',
  title: 'Hue curves',
  group: 'grade',
  words: [
    'hue vs hue',
    'hue vs saturation',
    'hue vs brightness',
    'brightness vs saturation',
    'selective colour',
    'skin',
    'make the grass yellow',
    'only one colour',
    'secondary',
  ],
  help: 'Bends one colour at a time: press on a curve over the hue you mean and drag. Relatives: Colour range, for picked colours; Colour, for all of them.',
  params: {
    turn: over(
      'Hue over hue',
      'hue',
      'Up turns a hue forward through yellow, green and blue, down back; up to a sixth of the circle.',
    ),
    strength: over('Saturation over hue', 'hue', 'Up strengthens colours of a hue, down fades them.'),
    light: over('Brightness over hue', 'hue', 'Up brightens colours of a hue, down darkens them.'),
    byBrightness: over('Saturation over brightness', 'brightness', 'Colours of dark and bright parts.'),
    bySaturation: over('Saturation over saturation', 'saturation', 'Pale and strong colours.'),
  },
  idle: (v) => [v.turn, v.strength, v.light, v.byBrightness, v.bySaturation].every(isFlat),
  prepare(v, tools) {
    const { kernels } = tools;
    const [turn, strength, light] = [around(v.turn), around(v.strength), around(v.light)];
    const [ofPale, ofDark] = [bent(v.bySaturation), bent(v.byBrightness)];
    const turns = shareTable((x) => turn(x) / 6, tools);
    const strengths = shareTable((x) => factor(strength(x)), tools);
    const lights = shareTable((x) => 2 ** light(x), tools);
    const bySaturation = shareTable((x) => factor(ofPale(x)), tools);
    const byHue = (src: number, dst: number, n: number) =>
      kernels.byHueSpan(src, dst, n, turns.at, strengths.at, lights.at, bySaturation.at, turns.steps);
    if (isFlat(v.byBrightness)) return byHue;
    const [plain, colours] = [shareTable(() => 1, tools), shareTable((x) => factor(ofDark(x)), tools)];
    return (src, dst, n) => {
      byHue(src, dst, n);
      kernels.byLumaSpan(dst, dst, n, plain.at, colours.at, plain.steps);
    };
  },
});
