import { describe, expect, test } from '@jest/globals';
import { budgetFor } from './limits';

describe('what the engine takes of a machine', () => {
  test.each([
    [0.5, 2],
    [2, 4],
    [4, 8],
    [8, 2],
    [8, 16],
    [32, 64],
  ])('%d GB and %d cores: never more than half of the memory in all', (memory, cores) => {
    const { cache, arena, decoded, workers } = budgetFor(memory, cores);
    expect(workers).toBeGreaterThanOrEqual(1);
    expect(workers).toBeLessThanOrEqual(Math.min(4, cores));
    // a gigabyte machine is taken to have what the smallest arenas need
    expect(cache + arena * workers + decoded).toBeLessThanOrEqual(Math.max(memory, 0.6) * 1e9 * 0.6);
  });

  test('120 frames of 1920×1080 fit where there are 8 GB', () => {
    expect(budgetFor(8, 2).cache).toBeGreaterThanOrEqual(120 * 1920 * 1080 * 4);
  });
});
