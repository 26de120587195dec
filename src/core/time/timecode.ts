import { parseQuantity } from './quantity';
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

/**
 * The frame that a typed text means: a frame number or sum, `2.5s`, `0:02.12`, or a step from the present frame with a leading + or −.
 * @returns null when it cannot be read
 */
export function frameTyped(text: string, current: number, rate: FrameRate): number | null {
  const source = text.trim().replace('−', '-');
  const code = /^(\d+):(\d{1,2})[.:](\d{1,2})$/.exec(source);
  if (code) {
    const [minutes, seconds, frames] = code.slice(1).map(Number) as [number, number, number];
    return (minutes * 60 + seconds) * Math.round(rate.num / rate.den) + frames;
  }
  const back = source.startsWith('-');
  const value = parseQuantity(back ? source.slice(1) : source, { current, rate });
  return value === null ? null : Math.round(back ? current - value : value);
}
