import { number } from '../../params/number';
import { wheeled } from '../../base/wheeled';
import { wheel } from '../../params/wheel';
import { definePass } from '../define';
import type { ChannelCurves } from '../define';
import { ofResult } from './saturation';
import { curveRunner } from './tables';

const REACH = 'Limits';

function curvesOf(v: Parameters<typeof wheeled>[1] & { saturation: number }): ChannelCurves {
  return { of: [wheeled(0, v), wheeled(1, v), wheeled(2, v)], saturation: v.saturation };
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
    saturation: ofResult,
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
  matched: (values) => ({ ...values }),
  idle: (v) =>
    v.saturation === 1 && [v.lift, v.gamma, v.gain, v.offset].every((own) => own.every((part) => part === 0)),
  curves: curvesOf,
  prepare: (v, tools) => curveRunner(curvesOf(v), tools),
});
