import { describe, expect, test } from '@jest/globals';
import { latestOnly } from './latest';

/** Work that is ended by hand, one run after the other. */
function byHand() {
  const ends: { resolve: () => void; reject: (error: Error) => void }[] = [];
  const work = () => new Promise<void>((resolve, reject) => ends.push({ resolve, reject }));
  return { work, ends };
}
const settled = () => new Promise((resolve) => setImmediate(resolve));

describe('work of which only the latest wish matters', () => {
  test('many wishes while it runs make one more run, never two at a time', async () => {
    const { work, ends } = byHand();
    const ask = latestOnly(work, () => undefined);
    void ask();
    for (let i = 0; i < 5; i++) void ask();
    expect(ends.length).toBe(1);
    ends[0]!.resolve();
    await settled();
    expect(ends.length).toBe(2);
    ends[1]!.resolve();
    await settled();
    expect(ends.length).toBe(2);
    void ask();
    expect(ends.length).toBe(3);
  });

  test('a wish made while an earlier one fails is done all the same, and the failure is told', async () => {
    const { work, ends } = byHand();
    const told: unknown[] = [];
    const ask = latestOnly(work, (error) => told.push(error));
    void ask();
    void ask();
    const error = new Error('no memory');
    ends[0]!.reject(error);
    await settled();
    expect(told).toEqual([error]);
    expect(ends.length).toBe(2);
    ends[1]!.resolve();
    await settled();
    void ask();
    expect(ends.length).toBe(3);
  });
});
