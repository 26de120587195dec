import { newSource, stockSource } from '../document/edits/layers';
import { describe, expect, test } from '@jest/globals';
import type { Layer, LayerId, ShotId, StockId } from '../document/schema';
import { still, type Value } from '../base/value';
import { perform } from '../document/edit';
import { addStock } from '../document/edits/project';
import { clipStock, layerOf, projectOf, SHOT } from '../testing/documents';
import { mix, planSound, type Pcm, type SoundItem } from './mix';

const RATE = 48000;
const tone = (hertz: number, seconds: number, sampleRate = RATE): Pcm => ({
  sampleRate,
  channels: [
    Float32Array.from({ length: seconds * sampleRate }, (_, i) => Math.sin((2 * Math.PI * hertz * i) / sampleRate)),
  ],
});
const item = (change: Partial<SoundItem> = {}): SoundItem => ({
  stock: 'bed' as StockId,
  name: 'bed',
  start: 0,
  end: 2,
  time: { offset: 0, speed: still(1) },
  keepPitch: false,
  gain: still(1),
  origin: 0,
  frame: 1 / 24,
  ...change,
});
const clips = (pcm: Pcm) => new Map([['bed', pcm]]);
/** Amplitude of a frequency in a stretch of samples. */
function amplitude(data: Float32Array, hertz: number, from: number, to: number): number {
  let [re, im] = [0, 0];
  for (let i = from; i < to; i++) {
    re += data[i]! * Math.cos((2 * Math.PI * hertz * i) / RATE);
    im += data[i]! * Math.sin((2 * Math.PI * hertz * i) / RATE);
  }
  return (2 * Math.hypot(re, im)) / (to - from);
}

describe('mixing', () => {
  test('a clip at its own rate is itself, on both sides when it is mono', () => {
    const pcm = tone(440, 2);
    const [left, right] = mix([item()], clips(pcm), 0.5, 1000, RATE);
    for (let i = 0; i < 1000; i++) expect(left[i]).toBeCloseTo(pcm.channels[0]![24000 + i]!, 4);
    expect(right).toEqual(left);
  });

  test('blocks meet without a seam', () => {
    const pcm = tone(333, 2);
    const [whole] = mix([item()], clips(pcm), 0, 9600, RATE);
    const [first] = mix([item()], clips(pcm), 0, 4800, RATE);
    const [second] = mix([item()], clips(pcm), 0.1, 4800, RATE);
    for (let i = 0; i < 4800; i += 7) {
      expect(first[i]).toBeCloseTo(whole[i]!, 5);
      expect(second[i]).toBeCloseTo(whole[4800 + i]!, 4);
    }
  });

  test('another sample rate keeps the pitch; double speed doubles it', () => {
    const [left] = mix([item()], clips(tone(1000, 2, 44100)), 0, RATE, RATE);
    expect(amplitude(left, 1000, 4800, 43200)).toBeCloseTo(1, 2);
    const [fast] = mix([item({ time: { offset: 0, speed: still(2) }, end: 1 })], clips(tone(1000, 2)), 0, RATE, RATE);
    expect(amplitude(fast, 2000, 4800, 43200)).toBeCloseTo(1, 1);
  });

  test('double speed with the pitch kept sounds the same tone; backwards is the recording mirrored', () => {
    const [kept] = mix(
      [item({ time: { offset: 0, speed: still(2) }, end: 0.9, keepPitch: true })],
      clips(tone(1000, 2)),
      0,
      RATE,
      RATE,
    );
    expect(amplitude(kept, 1000, 4800, 38400)).toBeGreaterThan(0.6);
    expect(amplitude(kept, 2000, 4800, 38400)).toBeLessThan(0.05);
    const sweep: Pcm = {
      sampleRate: RATE,
      channels: [Float32Array.from({ length: 2 * RATE }, (_, i) => Math.sin((i * i) / 4e6))],
    };
    const [back] = mix([item({ time: { offset: 24, speed: still(-1) }, end: 1 })], clips(sweep), 0, RATE, RATE);
    for (let i = 1000; i < 40000; i += 777) expect(back[i]).toBeCloseTo(sweep.channels[0]![RATE - i]!, 3);
  });

  test('a ramp from still to full speed reads the integral of the speed', () => {
    const ramp: Value<number> = {
      keys: [
        { at: 0, value: 0, ease: 'linear' },
        { at: 24, value: 1, ease: 'linear' },
      ],
    };
    const slope: Pcm = {
      sampleRate: RATE,
      channels: [Float32Array.from({ length: 2 * RATE }, (_, i) => i / (2 * RATE))],
    };
    const [left] = mix([item({ time: { offset: 0, speed: ramp } })], clips(slope), 0, RATE, RATE);
    for (const second of [0.25, 0.5, 0.9]) expect(left[second * RATE]).toBeCloseTo((second * second) / 2 / 2, 4);
  });

  test('levels multiply, items add, and nothing sounds outside its time', () => {
    const pcm = tone(500, 2);
    const [left] = mix(
      [item({ gain: still(0.25), start: 0.5, end: 1, origin: 0.5 }), item({ gain: still(0.5), start: 0.5, end: 1 })],
      clips(pcm),
      0,
      72000,
      RATE,
    );
    expect(amplitude(left, 500, 28800, 43200)).toBeCloseTo(0.75, 2);
    expect(Math.max(...left.subarray(0, 24000), ...left.subarray(48001))).toBe(0);
  });

  test('cuts do not click: the first and last moments rise and fall within 4 ms', () => {
    const dc: Pcm = { sampleRate: RATE, channels: [new Float32Array(96000).fill(1)] };
    const [left] = mix([item({ end: 0.5 })], clips(dc), 0, 24000, RATE);
    let steepest = 0;
    for (let i = 1; i < left.length; i++) steepest = Math.max(steepest, Math.abs(left[i]! - left[i - 1]!));
    expect(steepest).toBeLessThan(0.006);
    expect(left[300]).toBeCloseTo(1, 5);
  });

  test('a missing clip is silent', () => expect(Math.max(...mix([item()], new Map(), 0, 100, RATE)[0])).toBe(0));
});

describe('what sounds', () => {
  const bed = {
    ...clipStock('bed'),
    kind: 'sound' as const,
    facts: { codec: 'wav', alpha: false, seconds: 6, bytes: 1, sound: { channels: 2, sampleRate: RATE, codec: 'wav' } },
  };
  const withLayer = (change: Parameters<typeof layerOf>[2]) => {
    const { project } = perform(projectOf(), addStock(bed))!;
    return perform(project, {
      name: 'add',
      apply: (draft) => void draft.shots[0]!.layers.push(layerOf('bed', stockSource(bed.id), change) as never),
    })!.project;
  };
  const sounding = (change: Parameters<typeof layerOf>[2]) => planSound(withLayer(change), SHOT);

  test('a layer that begins before the shot starts with the sound it would have had', () => {
    const [only] = sounding({ span: { start: -24, length: 60 } });
    expect(only!.start).toBe(0);
    expect(only!.origin).toBeCloseTo(-1, 9);
    expect(only!.end).toBeCloseTo(1.5, 9);
  });

  test('a group is heard where it lies, at its level; at another speed it is silent', () => {
    const inside = withLayer({ span: { start: 10, length: 30 } });
    const grouped = (change: Partial<Layer>) => {
      const group = {
        ...layerOf('nest', newSource('group', { shot: 'inner' })),
        span: { start: 24, length: 24 },
        ...change,
      };
      const inner = { ...inside.shots[0]!, id: 'inner' as ShotId };
      return planSound({ ...inside, shots: [{ ...inside.shots[0]!, layers: [group] }, inner] }, SHOT);
    };
    const [only] = grouped({ sound: { gain: still(0.5), muted: false, effects: [] } });
    // ten frames into the group, which begins at frame 24 and ends at 48
    expect([only!.start, only!.end, only!.origin].map((at) => Math.round(at * 24))).toEqual([34, 48, 34]);
    expect(only!.gain).toEqual({ still: 0.5 });
    expect(grouped({ time: { offset: 0, speed: still(2), between: 'nearest', keepPitch: true } })).toEqual([]);
    expect(grouped({ shown: false })).toEqual([]);
  });

  test('muted, hidden and not-solo sounds are left out', () => {
    expect(sounding({ sound: { gain: still(1), muted: true, effects: [] } })).toEqual([]);
    expect(sounding({ shown: false })).toEqual([]);
    const both = withLayer({});
    const { project } = perform(both, {
      name: 'solo',
      apply: (draft) =>
        void draft.shots[0]!.layers.push({
          ...layerOf('other', stockSource(bed.id)),
          id: 'other' as LayerId,
          solo: true,
        } as never),
    })!;
    expect(planSound(project, SHOT).map((entry) => entry.name)).toEqual(['other']);
  });
});
