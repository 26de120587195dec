// Numbers, times and dates that stand in a text and run.

export interface Counting {
  counter: 'none' | 'number' | 'time' | 'date';
  /** the number; seconds of a time, days after the first day of a date */
  count: number;
  /** digits after the point */
  digits: number;
  /** digits before it, at least */
  least: number;
  /** the first day, year-month-day */
  day: string;
}
/** Where it stands in the text. */
export const COUNT_SIGN = '#';

const DAY_LENGTH = 86_400_000;
const MONTHS = 'January February March April May June July August September October November December'.split(' ');

/** @returns milliseconds since 1970, or NaN where it is no day that there was */
export function dayOf(text: string): number {
  const [, year, month, day] = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text.trim()) ?? [];
  const time = Date.UTC(Number(year), Number(month) - 1, Number(day));
  return new Date(time).getUTCDate() === Number(day) ? time : NaN;
}

const grouped = (digits: string): string => digits.replace(/\B(?=(\d{3})+$)/g, '\u2009');
/** A number by its digits; never a minus before nothing but noughts. */
function numberText(value: number, digits: number, least: number): string {
  const [whole, rest] = Math.abs(value).toFixed(digits).split('.');
  const sign = value < 0 && (Number(whole) > 0 || Number(rest ?? 0) > 0) ? '\u2212' : '';
  return sign + grouped(whole!.padStart(least, '0')) + (rest ? `.${rest}` : '');
}
/** Seconds as hours, minutes and seconds; hours only where there are some. */
function timeText(seconds: number, digits: number): string {
  const ticks = Math.round(Math.abs(seconds) * 10 ** digits);
  const whole = Math.floor(ticks / 10 ** digits);
  const two = (v: number) => String(v).padStart(2, '0');
  const [hours, minutes] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60];
  const rest = digits ? `.${String(ticks % 10 ** digits).padStart(digits, '0')}` : '';
  return `${seconds < 0 && ticks ? '\u2212' : ''}${hours ? `${hours}:${two(minutes)}` : minutes}:${two(whole % 60)}${rest}`;
}
function dateText(days: number, first: string): string {
  const start = dayOf(first);
  const date = new Date(start + Math.floor(days) * DAY_LENGTH);
  return Number.isNaN(date.getTime())
    ? first
    : `${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]} ${date.getUTCFullYear()}`;
}

/** A text with what is counted in it in place of every #. */
export function countedText(text: string, { counter, count, digits, least, day }: Counting): string {
  if (counter === 'none') return text;
  const places = Math.round(digits);
  const shown =
    counter === 'number'
      ? numberText(count, places, Math.round(least))
      : counter === 'time'
        ? timeText(count, places)
        : dateText(count, day);
  return text.replaceAll(COUNT_SIGN, shown);
}
