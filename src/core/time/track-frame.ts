import type { Moment } from './moment';
import { secondsAt, type FrameRate } from './rate';
import { sourceFrameAt } from './speed';

/** The frame of a track that shows in the layer of a moment; may be fractional. @param rate at which the track's frames are counted */
export const trackFrameAt = ({ layer, shot, frame }: Moment, rate: FrameRate): number =>
  (secondsAt(sourceFrameAt(layer.time, frame), shot.rate) * rate.num) / rate.den;
