import { expect, test } from '@jest/globals';
import { ScopeReader } from './scopes';

const bitmap = { width: 100, height: 50 } as ImageBitmap;
/** Workers that answer when they are told to. */
function workers() {
  const told: string[] = [];
  const asked: unknown[] = [];
  let answer: (() => void) | null = null;
  const reader = new ScopeReader(
    () => {
      told.push('begun');
      const api = {
        read: (_: unknown, question: unknown) => {
          asked.push(question);
          return new Promise((resolve) => (answer = () => resolve('read')));
        },
      };
      return { api: api as never, terminate: () => void told.push('ended') };
    },
    () => Promise.resolve({ width: 50, height: 25 } as ImageBitmap),
  );
  return { reader, told, asked, answer: () => answer!() };
}
const settled = () => new Promise((resolve) => setTimeout(resolve));

test('what was asked of a reader that is put to rest is answered with nothing, and the next question begins another', async () => {
  const { reader, told, answer } = workers();
  const first = reader.read(bitmap);
  await settled();
  reader.rest();
  await expect(first).resolves.toBeNull();
  const second = reader.read(bitmap);
  await settled();
  answer();
  await expect(second).resolves.toBe('read');
  expect(told).toEqual(['begun', 'ended', 'begun']);
});

test('one put to rest while the picture is still made small answers too', async () => {
  const { reader } = workers();
  const asked = reader.read(bitmap);
  reader.rest();
  await expect(asked).resolves.toBeNull();
});

test('the part that is asked about is named in the pixels of the smaller picture', async () => {
  const { reader, asked, answer } = workers();
  const read = reader.read(bitmap, { part: { x: 10, y: 20, w: 30, h: 4 }, solid: true });
  await settled();
  answer();
  await read;
  expect(asked).toEqual([{ part: { x: 5, y: 10, w: 15, h: 2 }, solid: true }]);
});
