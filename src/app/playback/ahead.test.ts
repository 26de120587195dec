import { describe, expect, test } from '@jest/globals';
import { Ahead, type AheadWork } from './ahead';

const tick = () => new Promise<void>((resume) => setImmediate(resume));

/** Frames that take one tick each, a store with room for some, and a clock that stands unless it is moved. */
function rig(change: { from?: number; to?: number; room?: number; pace?: number; cost?: number } = {}) {
  const state = { playhead: change.from ?? 0, time: 0, version: 1, playing: change.pace !== undefined };
  const held = new Map<string, number>();
  let wanted = new Set<string>();
  const asked: number[] = [];
  /** frames that are computed at the same time: now, and at the most */
  const atOnce = { now: 0, most: 0 };
  const room = change.room ?? 1000;
  const work: AheadWork = {
    range: () => ({ from: change.from ?? 0, to: change.to ?? 20 }),
    playhead: () => state.playhead,
    keyOf: (frame) => `${state.version} ${frame}`,
    has: (key) => held.has(key),
    room: () => room,
    want: (keys) => (wanted = new Set(keys)),
    compute: async (frame) => {
      asked.push(frame);
      atOnce.most = Math.max(atOnce.most, ++atOnce.now);
      const key = `${state.version} ${frame}`;
      state.time += change.cost ?? 1;
      await tick();
      atOnce.now--;
      held.set(key, frame);
      for (const old of [...held.keys()]) if (held.size > room && old !== key && !wanted.has(old)) held.delete(old);
    },
    pace: () => change.pace ?? null,
    goesOn: () => state.playing,
    changed: () => undefined,
    now: () => state.time,
    breathe: tick,
  };
  return { ahead: new Ahead(work), state, held, asked, atOnce };
}

describe('looking ahead', () => {
  test('begins at the playhead and goes round the range, each frame once, on all lanes', async () => {
    const { ahead, state, asked, atOnce } = rig({ from: 10, to: 20 });
    state.playhead = 16;
    await ahead.fill(2);
    expect(asked).toEqual([16, 17, 18, 19, 10, 11, 12, 13, 14, 15]);
    expect(atOnce.most).toBe(2);
    expect(Array.from({ length: 10 }, (_, i) => ahead.ready(10 + i)).every(Boolean)).toBe(true);
  });

  test('fills no more than fits, and what is at the playhead is still there when it has ended', async () => {
    const { ahead, asked, held } = rig({ to: 100, room: 20 });
    await ahead.fill(2);
    expect(asked.length).toBeLessThanOrEqual(20);
    expect(held.size).toBeLessThanOrEqual(20);
    expect(ahead.readyFrom(0, 100)).toBe(18);
  });

  test('the window goes along: further on, what is new is computed and what is there is not asked for again', async () => {
    const { ahead, state, asked } = rig({ to: 100, room: 20 });
    await ahead.fill(1);
    state.playhead = 10;
    await ahead.fill(1);
    expect(asked.slice(18)).toEqual([18, 19, 20, 21, 22, 23, 24, 25, 26, 27]);
    expect(ahead.readyFrom(10, 100)).toBe(18);
  });

  test('a frame that was lost is asked for again', async () => {
    const { ahead, held, asked } = rig({ to: 6 });
    await ahead.fill(1);
    held.delete('1 3');
    expect(ahead.ready(3)).toBe(false);
    await ahead.fill(1);
    expect(asked).toEqual([0, 1, 2, 3, 4, 5, 3]);
  });

  test('after a change nothing counts as ready, and a fill that was under way stops', async () => {
    const { ahead, state, asked } = rig();
    const first = ahead.fill(1);
    await tick();
    await tick();
    state.version = 2;
    ahead.forget();
    await first;
    expect(asked.length).toBeLessThan(20);
    expect(Array.from({ length: 20 }, (_, i) => ahead.ready(i)).some(Boolean)).toBe(false);
  });

  test('played in time with frames too slow for it, those asked for lie ahead of the playhead and apart, never behind the last', async () => {
    // 100 ms a frame at 24 frames a second on one lane: every third frame, from three ahead on
    const { ahead, state, asked } = rig({ to: 200, pace: 24, cost: 100 });
    const filling = ahead.fill(1);
    for (let i = 0; i < 40; i++) {
      await tick();
      state.playhead = Math.floor((state.time / 1000) * 24);
    }
    state.playing = false;
    ahead.pause();
    await filling;
    const after = asked.slice(1);
    expect(after.every((frame, i) => i === 0 || frame > after[i - 1]!)).toBe(true);
    const steps = after.slice(1).map((frame, i) => frame - after[i]!);
    expect(Math.min(...steps)).toBeGreaterThanOrEqual(2);
    expect(Math.max(...steps)).toBeLessThanOrEqual(5);
  });
});
