import { expect, test } from '@jest/globals';
import type { Run } from '../core/track/run';
import { TrackRunner } from './tracks';
import type { Clip } from './types';

const CLIP: Clip = { stock: 'plate', name: 'plate', rate: { num: 24, den: 1 }, frames: 10 };
const RUN = { kind: 'point' } as Run;
/** A worker whose run ends when it is told to. */
function worker() {
  const told: string[] = [];
  let end: (() => void) | null = null;
  const runner = new TrackRunner(() => {
    told.push('begun');
    const api = {
      run: () => new Promise((resolve) => (end = () => resolve({ why: 'done' }))),
      stop: () => void told.push('stop'),
    };
    return Promise.resolve({ api: api as never, terminate: () => void told.push('ended') });
  });
  return { runner, told, finish: () => end!() };
}
const settled = () => new Promise((resolve) => setTimeout(resolve));

test('runs one at a time, in one worker', async () => {
  const { runner, told, finish } = worker();
  const signal = new AbortController().signal;
  const first = runner.run(CLIP, RUN, () => undefined, signal);
  await settled();
  await expect(runner.run(CLIP, RUN, () => undefined, signal)).rejects.toThrow('Another track is being measured');
  finish();
  await expect(first).resolves.toEqual({ why: 'done' });
  const second = runner.run(CLIP, RUN, () => undefined, signal);
  await settled();
  finish();
  await second;
  expect(told).toEqual(['begun']);
});

test('a run is told to stop', async () => {
  const { runner, told, finish } = worker();
  const stopper = new AbortController();
  const run = runner.run(CLIP, RUN, () => undefined, stopper.signal);
  await settled();
  stopper.abort();
  expect(told).toContain('stop');
  finish();
  await run;
});

test('a run ends when its worker is given back, and the next one gets a new worker', async () => {
  const { runner, told } = worker();
  const { signal } = new AbortController();
  const run = runner.run(CLIP, RUN, () => undefined, signal);
  await settled();
  runner.rest();
  await expect(run).rejects.toThrow('its clip was closed');
  void runner.run(CLIP, RUN, () => undefined, signal).catch(() => undefined);
  await settled();
  expect(told).toEqual(['begun', 'ended', 'begun']);
  runner.rest();
});
