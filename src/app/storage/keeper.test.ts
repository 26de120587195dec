import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { JournalEntry } from '../../core/document/history';
import { JackplaneError } from '../../core/base/errors';
import { Keeper, type Keeping, type Row } from './keeper';

const entry = (name: string): JournalEntry => ({
  version: 3,
  kind: 'edit',
  step: { id: 1, name, scope: 'project', changes: [] },
});

/** A storage whose writes end when they are told to. */
function rig() {
  const written = new Map<number, string>();
  const states: Keeping['state'][] = [];
  const failed: unknown[] = [];
  let pending: { rows: readonly Row[]; done(error?: Error): void }[] = [];
  const keeper = new Keeper(
    (rows) =>
      new Promise((resolve, reject) => {
        pending.push({
          rows,
          done: (error) =>
            error ? reject(error) : (rows.forEach((row) => written.set(row.seq, row.entry.step.name)), resolve()),
        });
      }),
    (now) => states.push(now.state),
    (error) => failed.push(error),
  );
  const end = async (error?: Error) => {
    const all = pending;
    pending = [];
    all.forEach((write) => write.done(error));
    for (let i = 0; i < 10; i++) await Promise.resolve();
  };
  return {
    keeper,
    written,
    states,
    failed,
    end,
    underway: () => pending.flatMap((write) => write.rows.map((row) => row.seq)),
  };
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

describe('keeping', () => {
  test('is not said before the write that held the edit has succeeded', async () => {
    const { keeper, states, end } = rig();
    keeper.put(1, entry('one'), false);
    expect(keeper.now.state).toBe('keeping');
    await end();
    expect(keeper.now.state).toBe('kept');
    expect(states.indexOf('kept')).toBe(states.length - 1);
  });

  test('an edit made while another is being written is not called kept with it', async () => {
    const { keeper, written, states, end, underway } = rig();
    keeper.put(1, entry('one'), false);
    keeper.put(2, entry('two'), false);
    expect(underway()).toEqual([1]);
    await end();
    expect(states).not.toContain('kept');
    expect(underway()).toEqual([2]);
    await end();
    expect(keeper.now.state).toBe('kept');
    expect([...written.keys()]).toEqual([1, 2]);
  });

  test('a drag without an end is written again and again, its latest value last', async () => {
    const { keeper, written, end } = rig();
    for (let i = 0; i < 40; i++) {
      keeper.put(7, entry(`drag ${i}`), true);
      jest.advanceTimersByTime(16);
      await end();
    }
    // over 640 ms of dragging at most 120 ms are unwritten
    const last = Number(/\d+/.exec(written.get(7)!)![0]);
    expect(last).toBeGreaterThanOrEqual(31);
    void keeper.flush();
    await end();
    expect(written.get(7)).toBe('drag 39');
    expect(keeper.now.state).toBe('kept');
  });

  test('a value that was replaced while it was written is written once more', async () => {
    const { keeper, written, end, underway } = rig();
    keeper.put(3, entry('early'), false);
    keeper.put(3, entry('late'), false);
    await end();
    expect(written.get(3)).toBe('early');
    expect(keeper.now.state).toBe('keeping');
    expect(underway()).toEqual([3]);
    await end();
    expect(written.get(3)).toBe('late');
    expect(keeper.now.state).toBe('kept');
  });

  test('a failed write leaves no hole: what it held goes with the next, in order, and is tried again by itself', async () => {
    const { keeper, written, failed, end, underway } = rig();
    const full = new JackplaneError('storage', 'The storage is full.', 'Delete something.');
    keeper.put(1, entry('one'), false);
    await end(full);
    expect(keeper.now).toEqual({ state: 'failed', problem: 'The storage is full. Delete something.' });
    expect(failed).toEqual([full]);
    keeper.put(2, entry('two'), false);
    expect(underway()).toEqual([1, 2]);
    await end(full);
    // said once, not with every try
    expect(failed).toHaveLength(1);
    expect(keeper.now.state).toBe('failed');
    jest.advanceTimersByTime(3000);
    expect(underway()).toEqual([1, 2]);
    await end();
    expect([...written]).toEqual([
      [1, 'one'],
      [2, 'two'],
    ]);
    expect(keeper.now.state).toBe('kept');
  });

  test('stopped, it forgets what waits and writes no more', async () => {
    const { keeper, end, underway } = rig();
    keeper.put(1, entry('one'), true);
    keeper.stop();
    jest.advanceTimersByTime(10_000);
    await end();
    expect(underway()).toEqual([]);
    expect(keeper.now.state).toBe('kept');
  });
});
