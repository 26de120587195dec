import { describe, expect, test } from '@jest/globals';
import { still } from '../base/value';
import { layerPeaks } from './layer-peaks';

// a clip of 100 frames that gets louder
const rising = Array.from({ length: 50 }, (_, i) => (i + 1) / 50);
const heard = (change: Partial<Parameters<typeof layerPeaks>[2]> = {}, bins = 10) =>
  layerPeaks(rising, 100, { length: 100, time: { offset: 0, speed: still(1) }, gain: still(1), ...change }, bins);

describe('the wave along a layer', () => {
  test('as recorded it is the clip’s own', () => {
    expect(heard()).toEqual([0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1]);
  });

  test('backwards it falls; at double speed it is over in half the time; slipped it begins later', () => {
    expect(heard({ time: { offset: 100, speed: still(-1) } })).toEqual(heard().reverse());
    expect(heard({ time: { offset: 0, speed: still(2) } })).toEqual([0.2, 0.4, 0.6, 0.8, 1, 0, 0, 0, 0, 0]);
    expect(heard({ time: { offset: 50, speed: still(1) } }).slice(0, 5)).toEqual([0.6, 0.7, 0.8, 0.9, 1]);
  });

  test('its level counts at its own time, and no peak is more than full', () => {
    expect(heard({ gain: still(0.5) })[9]).toBe(0.5);
    expect(heard({ gain: still(8) })[9]).toBe(1);
    const fade = heard({
      gain: {
        keys: [
          { at: 0, value: 0, ease: 'linear' },
          { at: 100, value: 1, ease: 'linear' },
        ],
      },
    });
    fade.forEach((peak, i) => expect(peak).toBeCloseTo(((i + 1) / 10) * ((i + 0.5) / 10), 6));
  });

  test('standing still makes no sound', () => {
    expect(heard({ time: { offset: 40, speed: still(0) } }).every((peak) => peak === 0)).toBe(true);
  });
});
