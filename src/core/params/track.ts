import { z } from 'zod';
import { trackFrameAt } from '../time/track-frame';
import { trackName } from '../track/known';
import { defineKind, type Declared, type ParamBase } from './define';

/** A track of the clip that the layer shows, as plans carry it. */
export interface TrackNow {
  /** by which it is found again; none where it cannot be used */
  name: string;
  /** of the clip, at the moment; may be fractional */
  frame: number;
  /** of the clip, in pixels */
  size: { w: number; h: number };
  /** of the plan: 1 at full size */
  scale: number;
  /** frames of the clip at the moments that many frames of the shot before and after, as many each way as the parameter asks for, the earliest first */
  around?: readonly number[];
}
/** A track of the layer's own clip, by id; none is the empty one. */
export interface TrackParam extends ParamBase<TrackNow> {
  kind: 'track';
  default: '';
  /** how many frames of the shot before and after the moment it is asked for as well */
  around?: number;
}
export const track = (p: Omit<Declared<TrackParam>, 'default'>): TrackParam => ({ kind: 'track', default: '', ...p });

export const trackKind = defineKind<TrackParam>({
  kind: 'track',
  fixed: true,
  schema: () => z.string().regex(/^[A-Za-z0-9_-]{0,64}$/),
  resolve({ around = 0 }, value, { moment }): TrackNow {
    const { project, layer, reduction } = moment;
    const shown = layer.source.values['stock'] as { still?: string } | undefined;
    const found = project.tracks.find((item) => item.id === value);
    const usable = found && found.stock === shown?.still;
    const facts = project.stock.find((item) => (item.id as string) === shown?.still)?.facts;
    return {
      size: { w: facts?.width ?? 1, h: facts?.height ?? 1 },
      name: usable ? trackName(found) : '',
      frame: usable ? trackFrameAt(moment, found.rate) : 0,
      scale: 1 / reduction,
      ...(usable &&
        around > 0 && {
          around: Array.from({ length: 2 * around + 1 }, (_, i) =>
            trackFrameAt({ ...moment, frame: moment.frame + i - around }, found.rate),
          ),
        }),
    };
  },
  range: () => 'a track of the layer’s clip',
});
