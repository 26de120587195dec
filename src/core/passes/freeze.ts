import { boolean } from '../params/boolean';
import { number } from '../params/number';
import { SHOWS_AWAY } from './at-moments';
import { definePass } from './define';

/** Freeze: one moment stays, where the pass works. */
export const freeze = definePass({
  type: 'freeze',
  title: 'Stands still',
  group: 'time',
  words: ['freeze an area', 'stop time here', 'stop someone', 'still', 'stop time', 'cinemagraph', 'hold a moment'],
  help: 'Stops time; in an area only there, while the rest goes on. Keyframes of the frame choose another moment. Relatives: Freeze from here in the layer menu, Hold frames.',
  params: {
    frame: number({
      label: 'Frame',
      unit: '',
      default: 0,
      min: 0,
      max: 1e6,
      slider: [0, 240],
      help: 'The frame of the layer that stays.',
    }),
    before: boolean({
      label: 'Before it, too',
      default: true,
      help: 'Off, time goes on until that frame, and stands still from there.',
    }),
  },
  moment: (v, frame) => ({
    away: v.before || frame > v.frame ? Math.round(v.frame) - Math.floor(frame) : 0,
  }),
  ...SHOWS_AWAY,
});
