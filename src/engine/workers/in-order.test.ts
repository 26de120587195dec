import { expect, test } from '@jest/globals';
import { inOrder } from './in-order';

test('calls wait for those before them, whatever comes of these', async () => {
  const seen: string[] = [];
  const endings: (() => void)[] = [];
  const work = inOrder(async (name: string) => {
    seen.push(`${name} begins`);
    await new Promise<void>((end) => endings.push(end));
    seen.push(`${name} ends`);
    if (name === 'second') throw new Error('second failed');
    return name;
  });
  const all = Promise.allSettled([work('first'), work('second'), work('third')]);
  for (let i = 0; i < 3; i++) {
    while (endings.length <= i) await Promise.resolve();
    endings[i]!();
  }
  expect((await all).map((result) => result.status)).toEqual(['fulfilled', 'rejected', 'fulfilled']);
  const order = ['first', 'second', 'third'].flatMap((name) => [`${name} begins`, `${name} ends`]);
  expect(seen).toEqual(order);
});
