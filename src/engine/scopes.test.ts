import { expect, test } from '@jest/globals';
import { ScopeReader } from './scopes';

const bitmap = {} as ImageBitmap;
/** Workers that answer when they are told to. */
function workers() {
  const told: string[] = [];
  let answer: (() => void) | null = null;
  const reader = new ScopeReader(
    () => {
      told.push('begun');
      const api = { read: () => new Promise((resolve) => (answer = () => resolve('read'))) };
      return { api: api as never, terminate: () => void told.push('ended') };
    },
    () => Promise.resolve({} as ImageBitmap),
  );
  return { reader, told, answer: () => answer!() };
}
const settled = () => new Promise((resolve) => setTimeout(resolve));

test('what was asked of a reader that is put to rest is answered with nothing, and the next question begins another', async () => {
  const { reader, told, answer } = workers();
  const first = reader.read(bitmap, false);
  await settled();
  reader.rest();
  await expect(first).resolves.toBeNull();
  const second = reader.read(bitmap, false);
  await settled();
  answer();
  await expect(second).resolves.toBe('read');
  expect(told).toEqual(['begun', 'ended', 'begun']);
});

test('one put to rest while the picture is still made small answers too', async () => {
  const { reader } = workers();
  const asked = reader.read(bitmap, false);
  reader.rest();
  await expect(asked).resolves.toBeNull();
});
