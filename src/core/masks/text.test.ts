import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { placedRings } from './outline';
import { fillRings } from './raster';
import { readFont, textOutlines } from './text';

const file = readFileSync(
  join(import.meta.dirname, '../../../node_modules/@fontsource/archivo/files/archivo-latin-700-normal.woff'),
);
const font = readFont(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer);
const drawn = (text: string) =>
  fillRings(placedRings(textOutlines(font, text), { centre: [0, 0], rotation: 0 }, 40, [100, 40]), 200, 80);

test('capitals are as tall as asked and stand in the middle', () => {
  const plane = drawn('H');
  const rows = Array.from({ length: 80 }, (_, y) => Math.max(...plane.subarray(y * 200, y * 200 + 200)));
  expect(rows.findIndex((v) => v > 0.5)).toBe(20);
  expect(rows.findLastIndex((v) => v > 0.5)).toBe(59);
  const mean = plane.reduce((sum, v, i) => sum + v * ((i % 200) + 0.5), 0) / plane.reduce((sum, v) => sum + v, 0);
  expect(Math.abs(mean - 100)).toBeLessThan(1);
});

test('a letter with a hole has a hole; three strokes are three', () => {
  const ring = drawn('O');
  expect(ring[40 * 200 + 100]).toBe(0);
  const row = drawn('III').subarray(40 * 200, 41 * 200);
  let strokes = 0;
  for (let x = 1; x < 200; x++) if (row[x]! > 0.5 && row[x - 1]! <= 0.5) strokes++;
  expect(strokes).toBe(3);
  expect(textOutlines(font, '')).toEqual([]);
});
