import type { FrameRate } from './rate';

/** Minutes, seconds and frames of a frame number: `0:03.12`. Counted without dropping, at the rounded rate. */
export function timecode(frame: number, rate: FrameRate): string {
  const perSecond = Math.round(rate.num / rate.den);
  const sign = frame < 0 ? '-' : '';
  const whole = Math.abs(Math.trunc(frame));
  const seconds = Math.floor(whole / perSecond);
  const pad = (n: number) => String(n).padStart(2, '0');
  return `${sign}${Math.floor(seconds / 60)}:${pad(seconds % 60)}.${pad(whole % perSecond)}`;
}
