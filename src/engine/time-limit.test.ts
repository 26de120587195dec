import { describe, expect, jest, test } from '@jest/globals';
import { withPatience } from './time-limit';

describe('patience', () => {
  test('work that gets on is waited for, however long; work that does not is given up after its time', async () => {
    jest.useFakeTimers();
    let alive = () => undefined as void;
    let end = (_: string) => undefined as void;
    const slow = withPatience(
      (beat) => new Promise<string>((done) => ((alive = beat), (end = done))),
      100,
      () => new Error('late'),
    );
    for (let i = 0; i < 10; i++) {
      jest.advanceTimersByTime(90);
      alive();
    }
    end('done');
    await expect(slow).resolves.toBe('done');
    const stuck = withPatience(
      () => new Promise<string>(() => undefined),
      100,
      () => new Error('late'),
    );
    const outcome = expect(stuck).rejects.toThrow('late');
    jest.advanceTimersByTime(101);
    await outcome;
    jest.useRealTimers();
  });

  test('what the work throws arrives', async () => {
    await expect(
      withPatience(
        () => Promise.reject(new Error('broken')),
        1000,
        () => new Error('late'),
      ),
    ).rejects.toThrow('broken');
  });
});
