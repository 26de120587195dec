import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { PartsFile } from './parts-file';

const writes = fc.array(
  fc.record({
    position: fc.nat(300),
    data: fc.uint8Array({ minLength: 1, maxLength: 120 }).map((data) => new Uint8Array(data)),
  }),
  { maxLength: 12 },
);

test('whatever is written where, in whichever order, the file holds what an array holds', async () => {
  await fc.assert(
    fc.asyncProperty(writes, async (list) => {
      const file = new PartsFile();
      const bytes: number[] = [];
      for (const { position, data } of list) {
        file.write({ position, data });
        while (bytes.length < position) bytes.push(0);
        data.forEach((byte, i) => (bytes[position + i] = byte));
      }
      expect([...new Uint8Array(await file.blob('x/y').arrayBuffer())]).toEqual(bytes);
    }),
  );
});

test('large files are handed on in parts, and their beginning can still be changed', async () => {
  const file = new PartsFile();
  const writer = file.stream.getWriter();
  const long = 3 << 20;
  for (let i = 0; i < 4; i++)
    await writer.write({ type: 'write', position: i * long, data: new Uint8Array(long).fill(i) });
  await writer.write({ type: 'write', position: long - 2, data: Uint8Array.of(9, 9, 9, 9) });
  await writer.close();
  const blob = file.blob('video/mp4');
  expect([blob.size, blob.type]).toEqual([4 * long, 'video/mp4']);
  const seam = new Uint8Array(await blob.slice(long - 4, long + 4).arrayBuffer());
  expect([...seam]).toEqual([0, 0, 9, 9, 9, 9, 1, 1]);
});
