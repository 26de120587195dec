import { expect, test } from '@jest/globals';
import { beforePart } from './before-part';

const SIZE = { width: 400, height: 200 };
/** Whether a place of the box is inside of what a path cuts out. */
function shows(path: string, x: number, y: number): boolean {
  const inset = /^inset\((\S+) (\S+) (\S+) (\S+)\)$/.exec(path);
  if (inset) {
    const [top, right, bottom, left] = inset.slice(1).map((v) => parseFloat(v) / 100) as [
      number,
      number,
      number,
      number,
    ];
    return (
      x >= left * SIZE.width &&
      x <= (1 - right) * SIZE.width &&
      y >= top * SIZE.height &&
      y <= (1 - bottom) * SIZE.height
    );
  }
  const corners = [...path.matchAll(/(-?[\d.]+)(?:px)? (-?[\d.]+)(?:px)?/g)].map((m) => [Number(m[1]), Number(m[2])]);
  let inside = false;
  corners.forEach(([ax, ay], i) => {
    const [bx, by] = corners[(i + 1) % corners.length]!;
    if (ay! > y !== by! > y && x < ((bx! - ax!) * (y - ay!)) / (by! - ay!) + ax!) inside = !inside;
  });
  return inside;
}

test.each([
  ['upright', (x: number, _: number, share: number) => x / 400 < share],
  ['level', (_: number, y: number, share: number) => y / 200 < share],
  ['slanted', (x: number, y: number, share: number) => (x + y) / 600 < share],
] as const)('before lies on its side of an %s divider', (way, before) => {
  for (const share of [0, 0.2, 0.5, 0.83, 1])
    for (let x = 7; x < 400; x += 39)
      for (let y = 3; y < 200; y += 31) expect(shows(beforePart(way, share, SIZE), x, y)).toBe(before(x, y, share));
});
