import type { TrackKind } from '../../core/track/samples';

/** A track that can be added, as menus and the search offer it. */
export interface OfferedTrack {
  kind: TrackKind;
  title: string;
  help: string;
  /** what it is wished for by */
  words: string;
}
export const OFFERED_TRACKS: readonly OfferedTrack[] = [
  {
    kind: 'point',
    title: 'Point',
    help: 'Where a spot goes',
    words: 'follow motion tracking object stick attach moves spot',
  },
  {
    kind: 'pair',
    title: 'Pair',
    help: 'Two spots: place, turn and size',
    words: 'follow motion tracking rotation scale object',
  },
  {
    kind: 'patch',
    title: 'Patch',
    help: 'An area that also shears and stretches',
    words: 'follow motion tracking area object face',
  },
  {
    kind: 'plane',
    title: 'Plane',
    help: 'A flat thing by its four corners, in perspective',
    words: 'follow motion tracking screen replacement sign wall phone surface planar',
  },
  {
    kind: 'sway',
    title: 'Sway',
    help: 'The whole picture, for steadying',
    words: 'camera stabilise stop the shaking shaky',
  },
];
