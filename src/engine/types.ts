import type { MediaFacts, Stock } from '../core/document/schema';
import type { KeyCheck } from '../core/measures/key-check';
import type { FrameRate } from '../core/time/rate';
import type { Measured } from '../core/track/run';
import type { Glimpse } from '../core/track/tracker';
import type { Problem } from '../core/execute/execute';

export interface Probe {
  kind: Stock['kind'];
  facts: MediaFacts;
  /** small PNG or WebP picture, or null for sound */
  poster: Blob | null;
  /** peaks 0…1 of sound, one for each of a few hundred equal parts, or null */
  peaks: number[] | null;
}

/** What of a frame is shown: its colours, its coverage as grey or as a tint over what is clear, or its coverage sorted into solid, clear and between. */
export type Look = 'picture' | 'matte' | 'tint' | 'relief';

export interface ShownFrame {
  bitmap: ImageBitmap;
  /** where the bitmap lies in the frame, when only a part was computed; all in pixels of the plan's scale */
  part?: { x: number; y: number; width: number; height: number };
  /** of a key check; islands in shares of the picture's size */
  check?: KeyCheck;
  problems: Problem[];
}

export interface RenderSettings {
  container: 'webm' | 'mp4';
  video: 'vp9' | 'vp8' | 'avc';
  /** bits a second */
  bitrate: number;
  sound: boolean;
  /** leave the background out and keep coverage; WebM can hold it */
  clear: boolean;
}

export interface RenderResult {
  blob: Blob;
  /** read back from the written file */
  frames: number;
  width: number;
  height: number;
  seconds: number;
  videoCodec: string;
  soundCodec: string | null;
}

/** Longest sound that is opened, in seconds. */
export const MOST_SOUND_SECONDS = 30 * 60;

/** The clip that is measured. */
export interface Clip {
  stock: string;
  name: string;
  rate: FrameRate;
  /** frames in it */
  frames: number;
}
/** What of a run is told of at once, and what is seen of the pattern meanwhile. */
export interface RunNews {
  measured: Measured[];
  glimpse: Glimpse | null;
}
