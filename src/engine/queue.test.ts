import { describe, expect, test } from '@jest/globals';
import { Queue, type Wish } from './queue';

/** A job that goes on until it is told to end, and writes down who did what. */
function rig(workers: string[]) {
  const log: string[] = [];
  const ends = new Map<string, { end(): void; fail(error: Error): void }>();
  const queue = new Queue(workers);
  const add = (name: string, wish: Wish) => {
    const result = queue.run(wish, (worker) => {
      log.push(`${worker} ${name}`);
      return new Promise<string>((resolve, reject) => ends.set(name, { end: () => resolve(name), fail: reject }));
    });
    result.catch(() => undefined);
    return result;
  };
  const settle = () => new Promise((go) => setTimeout(go, 0));
  const end = async (name: string) => {
    ends.get(name)!.end();
    await settle();
  };
  return { log, ends, queue, add, end, settle };
}

describe('the queue before the workers', () => {
  test('takes what is urgent first, and of two alike the older one', async () => {
    const { log, add, end } = rig(['a']);
    void add('first', { priority: 'render' });
    void add('ahead 1', { priority: 'ahead' });
    void add('ahead 2', { priority: 'ahead' });
    void add('thumbnail', { priority: 'look' });
    void add('frame', { priority: 'frame' });
    for (const name of ['first', 'frame', 'thumbnail', 'ahead 1', 'ahead 2']) await end(name);
    expect(log).toEqual(['a first', 'a frame', 'a thumbnail', 'a ahead 1', 'a ahead 2']);
  });

  test('whoever is free takes the next, so that a slow one holds nobody up', async () => {
    const { log, add, end } = rig(['a', 'b']);
    for (let i = 0; i < 6; i++) void add(`job ${i}`, { priority: 'render' });
    for (let i = 1; i < 6; i++) await end(`job ${i}`);
    expect(log).toEqual(['a job 0', 'b job 1', 'b job 2', 'b job 3', 'b job 4', 'b job 5']);
  });

  test('what has a home waits for it; what spares a worker leaves it free', async () => {
    const { log, add, end } = rig(['a', 'b']);
    void add('ahead 1', { priority: 'ahead', spared: 0 });
    void add('ahead 2', { priority: 'ahead', spared: 0 });
    void add('frame 1', { priority: 'frame', home: 0 });
    void add('frame 2', { priority: 'frame', home: 0 });
    expect(log).toEqual(['b ahead 1', 'a frame 1']);
    await end('ahead 1');
    expect(log.at(-1)).toBe('b ahead 2');
    await end('frame 1');
    expect(log.at(-1)).toBe('a frame 2');
  });

  test('one worker alone is not spared', () => {
    const { log, add } = rig(['a']);
    void add('ahead', { priority: 'ahead', spared: 0 });
    expect(log).toEqual(['a ahead']);
  });

  test('two at once hide waiting; what is urgent and wants a worker for itself comes before any more of them', async () => {
    const { log, add, end } = rig(['a']);
    for (let i = 0; i < 4; i++) void add(`file ${i}`, { priority: 'render', depth: 2 });
    expect(log).toEqual(['a file 0', 'a file 1']);
    void add('look', { priority: 'look' });
    await end('file 0');
    expect(log).toEqual(['a file 0', 'a file 1']);
    await end('file 1');
    expect(log.slice(2)).toEqual(['a look', 'a file 2']);
  });

  test('a worker that nothing urgent waits for goes on', async () => {
    const { log, add, end } = rig(['a', 'b']);
    for (let i = 0; i < 6; i++) void add(`file ${i}`, { priority: 'render', depth: 2 });
    void add('look', { priority: 'look', home: 0 });
    await end('file 1');
    await end('file 3');
    expect(log.slice(4)).toEqual(['b file 4', 'b file 5']);
  });

  test('what waits can become urgent', async () => {
    const { log, queue, add, end } = rig(['a', 'b']);
    const wish: Wish = { priority: 'ahead', spared: 0 };
    void add('busy', { priority: 'ahead', spared: 0 });
    void add('other', { priority: 'ahead', spared: 0 });
    void add('wanted', wish);
    queue.urge(wish, { priority: 'render' });
    expect(log).toEqual(['b busy']);
    queue.urge(wish, { priority: 'frame', home: 0 });
    expect(log).toEqual(['b busy', 'a wanted']);
    await end('busy');
    expect(log.at(-1)).toBe('b other');
  });

  test('a cancelled job never begins and says so; one that is being worked on goes on', async () => {
    const { log, add, end } = rig(['a']);
    const stop = new AbortController();
    const begun = add('begun', { priority: 'ahead', signal: stop.signal });
    const waiting = add('waiting', { priority: 'ahead', signal: stop.signal });
    stop.abort();
    await expect(waiting).rejects.toMatchObject({ code: 'cancelled' });
    await end('begun');
    await expect(begun).resolves.toBe('begun');
    await expect(add('late', { priority: 'frame', signal: stop.signal })).rejects.toMatchObject({ code: 'cancelled' });
    expect(log).toEqual(['a begun']);
  });

  test('a job that fails frees its worker', async () => {
    const { log, ends, add, settle } = rig(['a']);
    const bad = add('bad', { priority: 'frame' });
    void add('good', { priority: 'frame' });
    ends.get('bad')!.fail(new Error('no'));
    await expect(bad).rejects.toThrow('no');
    await settle();
    expect(log).toEqual(['a bad', 'a good']);
  });

  test('workers are replaced when they have ended what they had; what waits goes to the new ones', async () => {
    const { log, queue, add, end, settle } = rig(['a']);
    void add('old', { priority: 'frame' });
    void add('new', { priority: 'frame' });
    const replaced = queue.replace(() => Promise.resolve(['b', 'c']));
    await settle();
    expect(log).toEqual(['a old']);
    await end('old');
    await expect(replaced).resolves.toEqual(['a']);
    expect(log).toEqual(['a old', 'b new']);
  });
});
