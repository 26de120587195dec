import { number } from '../../params/number';
import { wheel, wheelChannels, type Wheel } from '../../params/wheel';
import { definePass } from '../define';
import { channelTables } from './tables';

const REACH = 'Limits';

interface Wheeled {
  lift: Wheel;
  gamma: Wheel;
  gain: Wheel;
  offset: Wheel;
  liftTo: number;
  gainFrom: number;
}

/** What becomes of a display-encoded value of one channel: lifted at its dark end, scaled at its bright one, bent in the middle, shifted as a whole. */
export function wheeled(v: number, channel: 0 | 1 | 2, d: Wheeled): number {
  const [lift, gamma, gain, offset] = [d.lift, d.gamma, d.gain, d.offset].map((own) => ({
    level: own[2],
    colour: wheelChannels(own)[channel],
  }));
  const lifted = v + (lift!.level * 0.5 + lift!.colour * 0.25) * Math.max(0, 1 - v / Math.max(0.01, d.liftTo));
  const scaled =
    lifted > d.gainFrom ? d.gainFrom + (lifted - d.gainFrom) * 2 ** (gain!.level * 1.5 + gain!.colour * 0.75) : lifted;
  const power = 2 ** -(gamma!.level + gamma!.colour * 0.5);
  const bent = scaled <= 0 || power === 1 ? scaled : scaled ** power;
  return Math.max(0, bent + offset!.level * 0.5 + offset!.colour * 0.25);
}

/** Lift, gamma, gain and offset, each with a colour and a level. */
export const wheels = definePass({
  type: 'wheels',
  title: 'Wheels',
  group: 'grade',
  words: [
    'lift gamma gain',
    'offset',
    'colour wheels',
    'teal and orange',
    'shadows colour',
    'highlights colour',
    'primaries',
    'colour grade',
    'look',
  ],
  help: 'Gives dark, middle and bright parts a colour and a level each, on one ring, so that you see how they stand to each other. Relatives: Tint by brightness, Tone.',
  params: {
    lift: wheel({ label: 'Lift', mark: 'L', help: 'The dark end: white stays where it is.' }),
    gamma: wheel({ label: 'Gamma', mark: 'M', within: 'lift', help: 'The middle: both ends stay where they are.' }),
    gain: wheel({ label: 'Gain', mark: 'H', within: 'lift', help: 'The bright end: black stays where it is.' }),
    offset: wheel({ label: 'Offset', mark: 'A', within: 'lift', help: 'Everything alike.' }),
    liftTo: number({
      group: REACH,
      label: 'Lift up to',
      unit: '%',
      default: 1,
      min: 0.01,
      max: 1,
      slider: [0.05, 1],
      help: 'The tone from which on lift does nothing.',
    }),
    gainFrom: number({
      group: REACH,
      label: 'Gain from',
      unit: '%',
      default: 0,
      min: 0,
      max: 0.99,
      slider: [0, 0.95],
      help: 'The tone below which gain does nothing.',
    }),
  },
  idle: (v) => [v.lift, v.gamma, v.gain, v.offset].every((own) => own.every((part) => part === 0)),
  prepare(v, tools) {
    const of = (channel: 0 | 1 | 2) => (x: number) => wheeled(x, channel, v);
    const table = channelTables([of(0), of(1), of(2)], tools);
    return (src, dst, n) => tools.kernels.adjustSpan(src, dst, n, table.at, table.steps, 1);
  },
});
