// How urgent what the app asks for is, and by whom it is done.
import type { Wish } from './queue';

/** The frame that is looked at, by the worker that keeps every step, so that a turned dial costs only what comes after it. */
export const SHOWN: Wish = { priority: 'frame', home: 0, depth: Infinity };
/** Thumbnails and measures, done where the dials' pictures are. */
export const LOOK: Wish = { priority: 'look', home: 0 };
/** Frames ahead while someone may turn a dial. */
export const AHEAD: Wish = { priority: 'ahead', spared: 0 };
/** Frames ahead while nobody turns dials. */
export const PLAYED: Wish = { priority: 'ahead' };
