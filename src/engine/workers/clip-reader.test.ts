import { describe, expect, test } from '@jest/globals';
import type { VideoSample } from 'mediabunny';
import { ClipReader, FrameStore } from './clip-reader';

const RATE = 25;
const FRAMES = 100;

/** A clip of one-pixel frames, each of the colour of its number, and a log of what was asked of it. */
function clip() {
  const log = { opened: [] as number[], decoded: [] as number[], alive: 0 };
  const sample = (index: number) => {
    log.decoded.push(index);
    log.alive++;
    return {
      timestamp: index / RATE,
      displayWidth: 1,
      displayHeight: 1,
      rotation: 0,
      format: 'RGBA',
      colorSpace: { matrix: null, fullRange: null },
      flip: false,
      visibleRect: { width: 1, height: 1 },
      allocationSize: () => 4,
      copyTo: (data: Uint8ClampedArray) => Promise.resolve(data.set([index, 0, 0, 255])),
      close: () => log.alive--,
    } as unknown as VideoSample;
  };
  async function* samplesFrom(seconds: number) {
    await Promise.resolve();
    const first = Math.min(FRAMES - 1, Math.max(0, Math.floor(seconds * RATE + 1e-9)));
    log.opened.push(first);
    for (let i = first; i < FRAMES; i++) yield sample(i);
  }
  return { log, samplesFrom };
}

function reading(bytes = 1e6) {
  const { log, samplesFrom } = clip();
  const reader = new ClipReader('clip', samplesFrom, new FrameStore(bytes));
  const frame = async (index: number) => (await reader.frameAt((index + 0.5) / RATE)).data[0];
  return { log, reader, frame };
}

describe('reading a clip', () => {
  test('gives the frame that shows at a time, whatever the order of asking', async () => {
    const { frame } = reading();
    for (const index of [0, 1, 7, 3, 99, 50, 51, 49]) expect(await frame(index)).toBe(index);
  });

  test('two workers that take turns, the later frame asked first, decode each frame once', async () => {
    const { frame, log } = reading();
    await frame(0);
    for (let i = 1; i < 40; i += 2) expect(await Promise.all([frame(i + 1), frame(i)])).toEqual([i + 1, i]);
    expect(log.opened).toEqual([0]);
    expect(new Set(log.decoded).size).toBe(log.decoded.length);
  });

  test('a step back of many frames and a long jump start anew where they are asked', async () => {
    const { frame, log } = reading();
    await frame(60);
    await frame(10);
    await frame(90);
    expect(log.opened).toEqual([60, 10, 90]);
  });

  test('a short way ahead is decoded on, not sought', async () => {
    const { frame, log } = reading();
    await frame(10);
    await frame(30);
    expect(log.opened).toEqual([10]);
  });

  test('before the first and after the last frame the nearest shows', async () => {
    const { reader } = reading();
    expect((await reader.frameAt(-3)).data[0]).toBe(0);
    expect((await reader.frameAt(0.5 / RATE)).data[0]).toBe(0);
    expect((await reader.frameAt(1.5 / RATE)).data[0]).toBe(1);
    expect((await reader.frameAt(60)).data[0]).toBe(FRAMES - 1);
  });

  test('held frames stay within their bytes, and the oldest go first', async () => {
    const { frame, log } = reading(3 * 4);
    for (const index of [20, 21, 22, 23]) await frame(index);
    const before = log.decoded.length;
    await frame(22);
    expect(log.decoded).toHaveLength(before);
    await frame(20);
    expect(log.opened).toEqual([20, 20]);
  });

  test('closing gives back every decoded sample', async () => {
    const { frame, reader, log } = reading();
    await frame(5);
    await frame(8);
    await reader.close();
    expect(log.alive).toBe(0);
  });
});
