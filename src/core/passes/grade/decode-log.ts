import { toDisplay } from '../../picture/light';
import {
  fromLimited,
  LOG_CURVES,
  PRIMARIES,
  toBt709,
  type LogCurveName,
  type PrimariesName,
} from '../../picture/encodings';
import { boolean } from '../../params/boolean';
import { choice } from '../../params/choice';
import { number } from '../../params/number';
import { definePass } from '../define';
import { channelTables } from './tables';

/** Brightest encoded value that is carried on: 2.3 stops over white. */
const MOST = 2;
/** How far down from white the roll-off begins at its fullest. */
const DEEPEST = 0.5;

/** Encoded values over a knee approach white instead of being cut off there. @param amount 0…1 */
export function rolledOff(v: number, amount: number): number {
  const knee = 1 - DEEPEST * amount;
  return amount === 0 || v <= knee ? v : knee + (1 - knee) * (1 - Math.exp((knee - v) / (1 - knee)));
}

/** Footage that was recorded with a log curve becomes an ordinary picture. */
export const decodeLog = definePass({
  type: 'decode-log',
  title: 'Decode log',
  group: 'grade',
  words: [
    'log footage',
    'flat footage',
    'washed out',
    'grey and dull',
    'hlg',
    'pq',
    'hdr',
    's-log3',
    'v-log',
    'acescct',
    'camera encoding',
    'wide gamut',
  ],
  help: 'Says how the camera wrote its light, and turns that into an ordinary picture by the published formula. Belongs first in the line, best to the whole clip. Relatives: Tone, Balance, Table.',
  params: {
    curve: choice({
      label: 'Recorded as',
      default: 'hlg',
      options: Object.entries(LOG_CURVES).map(([value, { title }]) => ({ value, label: title })),
      help: 'The curve that the camera was set to.',
    }),
    primaries: choice({
      label: 'Primaries',
      default: 'bt2020',
      options: Object.entries(PRIMARIES).map(([value, { title }]) => ({ value, label: title })),
      help: 'The colours that the camera calls red, green and blue.',
    }),
    limited: boolean({
      label: 'File in video range',
      default: true,
      help: 'Video files hold black at 16 of 255; the formulas of S-Log3 and V-Log count from 0. Off for pictures and full-range files.',
    }),
    exposure: number({
      label: 'Exposure',
      unit: 'stops',
      default: 0,
      min: -10,
      max: 10,
      slider: [-4, 4],
      help: 'Before highlights are rolled off, so that nothing is lost.',
    }),
    rollOff: number({
      label: 'Roll-off',
      unit: '%',
      default: 0.5,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How early what is brighter than white bends towards it. At 0 it is the plain formula, and what is brighter is cut off at the end.',
    }),
  },
  prepare(v, tools) {
    const { kernels, arena, scratch } = tools;
    const { light, fullRange } = LOG_CURVES[v.curve as LogCurveName];
    const gain = 2 ** v.exposure;
    const decode = (x: number): number =>
      Math.min(MOST, toDisplay(light(fullRange && v.limited ? fromLimited(x) : x) * gain));
    const roll = (x: number): number => rolledOff(x, v.rollOff);
    const first = channelTables([decode, decode, decode], tools);
    const matrix = scratch(9 * 4);
    arena.floats(matrix, 9).set(toBt709(v.primaries as PrimariesName));
    const last = channelTables([roll, roll, roll], tools);
    return (src, dst, n) => {
      kernels.adjustSpan(src, dst, n, first.at, first.steps, 1);
      if (v.primaries !== 'bt709') kernels.lightMatrixSpan(dst, dst, n, matrix);
      if (v.rollOff > 0) kernels.adjustSpan(dst, dst, n, last.at, last.steps, 1);
    };
  },
});
