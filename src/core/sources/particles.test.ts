import { birthsOf } from './births';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { beginningOf, type Params } from '../params/registry';
import { floatsOf, testRig, type TestRig } from '../testing/rig';
import type { DrawnSource } from './define';
import { particles } from './particles';
import { SWARMS } from './swarms';
import { affordable, MOST_AT_ONCE, PARTICLE, swarmAt, type Swarming } from './swarm';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
});
const BEGINS = Object.fromEntries(
  Object.entries(particles.params as Params).map(([name, param]) => [name, beginningOf(param)]),
);
/** Nothing varies, nothing pulls. */
const CALM = {
  before: 0,
  lifeVaries: 0,
  speedVaries: 0,
  grainVaries: 0,
  wander: 0,
  gravity: 0,
  drag: 0,
  spread: 0,
  ends: 1,
  appears: 0,
  goes: 0,
};
const values = (change: object): Swarming => ({ ...BEGINS, ...CALM, at: [0, 0], ...change }) as unknown as Swarming;
/** The particles of a list as what they are. */
function there(list: Float32Array) {
  return Array.from({ length: list.length / PARTICLE }, (_, i) => {
    const [x, y, long, wide, c, s, r, g, b, opacity] = list.subarray(i * PARTICLE, (i + 1) * PARTICLE);
    return { x: x!, y: y!, long: long!, wide: wide!, c: c!, s: s!, colour: [r!, g!, b!], opacity: opacity! };
  });
}

describe('particles', () => {
  test('as many are there as come while one lasts; a burst comes once', () => {
    expect(there(swarmAt(values({ rate: 30, life: 2 }), 10))).toHaveLength(60);
    expect(there(swarmAt(values({ rate: 30, life: 2 }), 0.5))).toHaveLength(16);
    expect(there(swarmAt(values({ rate: 30, life: 2, before: 5 }), 0))).toHaveLength(60);
    const burst = values({ rate: 0, burst: 50, life: 2 });
    expect([0, 1.9, 2.1].map((at) => there(swarmAt(burst, at)).length)).toEqual([50, 50, 0]);
  });

  test('no more are there than can be, and then the youngest', () => {
    const many = there(swarmAt(values({ rate: 5000, life: 600, speed: 1, direction: 0 }), 100));
    expect(many).toHaveLength(MOST_AT_ONCE);
    expect(Math.max(...many.map(({ x }) => x))).toBeLessThanOrEqual(4.01);
  });

  test('very many very large ones are the youngest of them, as many as can be drawn', () => {
    const huge = swarmAt(values({ rate: 5000, life: 600, speed: 1, direction: 0, grain: 2000 }), 100);
    const drawn = affordable(huge, 1920, 1080);
    expect(drawn.length / PARTICLE).toBeGreaterThan(100);
    expect(drawn.length / PARTICLE).toBeLessThan(220);
    expect(Math.max(...there(drawn).map(({ x }) => x))).toBeLessThan(0.1);
    const few = swarmAt(values({ rate: 30, life: 2 }), 10);
    expect(affordable(few, 1920, 1080)).toHaveLength(few.length);
  });

  test('one falls as a stone does, and with drag as the sum of very small steps', () => {
    const thrown = { rate: 0, burst: 1, life: 10, speed: 100, direction: -60, gravity: 80, wind: 30 };
    const [free] = there(swarmAt(values(thrown), 2));
    expect(free!.x).toBeCloseTo(100 * Math.cos(Math.PI / 3) * 2 + 30 * 2, 3);
    expect(free!.y).toBeCloseTo(-100 * Math.sin(Math.PI / 3) * 2 + (80 * 4) / 2, 3);
    const [held] = there(swarmAt(values({ ...thrown, drag: 0.8 }), 2));
    let [x, y, vx, vy] = [0, 0, 100 * Math.cos(Math.PI / 3), -100 * Math.sin(Math.PI / 3)];
    const dt = 1e-4;
    for (let t = 0; t < 2; t += dt) {
      [x, y] = [x + vx * dt, y + vy * dt];
      [vx, vy] = [vx + 0.8 * (30 - vx) * dt, vy + (80 - 0.8 * vy) * dt];
    }
    expect(Math.abs(held!.x - x)).toBeLessThan(0.05);
    expect(Math.abs(held!.y - y)).toBeLessThan(0.05);
  });

  test('each keeps its lots: a moment later the same ones are a little further on', () => {
    const wild = { ...BEGINS, at: [0, 0] } as unknown as Swarming;
    const [now, later] = [there(swarmAt(wild, 5)), there(swarmAt(wild, 5 + 1 / 240))];
    const moved = now.filter(({ x, y }) => later.some((other) => Math.hypot(other.x - x, other.y - y) < 6)).length;
    expect(moved / now.length).toBeGreaterThan(0.95);
    expect(swarmAt(wild, 5)).toEqual(swarmAt(wild, 5));
    expect(swarmAt({ ...wild, seed: 2 }, 5)).not.toEqual(swarmAt(wild, 5));
  });

  test('they come from where they are said to', () => {
    const from = (emitter: string) =>
      there(swarmAt(values({ emitter, wide: 100, high: 40, rate: 400, life: 1, speed: 0 }), 1));
    expect(from('line').every(({ x, y }) => Math.abs(x) <= 50 && y === 0)).toBe(true);
    const box = from('box');
    expect(box.every(({ x, y }) => Math.abs(x) <= 50 && Math.abs(y) <= 20)).toBe(true);
    expect(box.some(({ x, y }) => Math.hypot(x / 50, y / 20) > 1.05)).toBe(true);
    expect(from('ellipse').every(({ x, y }) => Math.hypot(x / 50, y / 20) <= 1.0001)).toBe(true);
  });

  test('they go through their colours, fade, and grow or shrink over their life', () => {
    const colours = [
      [0, [1, 0, 0]],
      [1, [0, 0, 1]],
    ];
    const one = values({ rate: 0, burst: 1, life: 4, colours, goes: 0.5, ends: 3, grain: 10 });
    const [half] = there(swarmAt(one, 2));
    expect(half!.colour).toEqual([0.5, 0, 0.5]);
    expect(half!.wide).toBeCloseTo(10, 5);
    expect(there(swarmAt(one, 3))[0]!.opacity).toBeCloseTo(0.5, 5);
  });

  test('size and opacity are drawn by hand over a life, besides what they are', () => {
    const one = values({
      ...{ rate: 0, burst: 1, life: 4, grain: 10, ends: 3 },
      sized: [
        [0, 0],
        [1, 1],
      ],
      faded: [
        [0, 1],
        [0.5, 0],
        [1, 1],
      ],
    });
    for (const at of [0.5, 1, 3.3]) {
      const share = at / 4;
      expect(there(swarmAt(one, at))[0]!.wide).toBeCloseTo((10 * (1 + 2 * share) * share) / 2, 3);
    }
    expect([0.001, 2, 3.999].map((at) => there(swarmAt(one, at))[0]!.opacity)).toEqual(
      [1, 0, 1].map((v) => expect.closeTo(v, 2)),
    );
  });

  test('those in the depth where it is sharp are sharp, and the others as soft as they are far from it', () => {
    const deep = values({ rate: 200, life: 1, grain: 20, depth: 0.5, blurred: 30, sharpAt: 0.25 });
    const list = swarmAt(deep, 1);
    expect(list.length).toBeGreaterThan(100 * PARTICLE);
    const sizes = there(list).map(({ wide }) => wide);
    expect(sizes).toEqual([...sizes].sort((a, b) => a - b)); // what is near lies over what is far
    there(list).forEach(({ wide }, i) => {
      // as large as it is near
      const far = (1 - wide / 10) / 0.5;
      expect(list[i * PARTICLE + PARTICLE - 1]).toBeCloseTo(30 * Math.abs(far - 0.25), 3);
    });
  });

  test.each([
    ['on a slope', 35, 0, 0, 1.6],
    ['on a slope, in the wind', -30, 0.6, 80, 1.15],
    ['on a slope, carried', -20, 0, 60, 1.3],
    ['on a wall to its left', 90, 0.4, -300, 1.3],
  ])('one leaps %s as it does in very small steps', (_, tilt, drag, wind, at) => {
    const [px, py] = [-20, 60];
    const thrown = { rate: 0, burst: 1, life: 10, speed: 90, direction: 160, gravity: 300, drag, wind };
    const [found] = there(swarmAt(values({ ...thrown, meets: 'bounce', bounce: 0.5, floor: [px, py], tilt }), at));
    const turn = (tilt * Math.PI) / 180;
    const normal = [-Math.sin(turn), Math.cos(turn)] as const;
    const dt = 1e-5;
    let [x, y, vx, vy] = [0, 0, 90 * Math.cos((160 * Math.PI) / 180), 90 * Math.sin((160 * Math.PI) / 180)];
    let leaps = 0;
    if (drag === 0) vx += wind;
    for (let t = 0; t < at; t += dt) {
      vx += drag * (wind - vx) * dt;
      vy += (300 - drag * vy) * dt;
      x += vx * dt;
      y += vy * dt;
      const below = (x - px) * normal[0] + (y - py) * normal[1];
      const into = vx * normal[0] + vy * normal[1];
      if (below <= 0 || into <= 0) continue;
      leaps++;
      x -= below * normal[0];
      y -= below * normal[1];
      vx -= 1.5 * into * normal[0];
      vy -= 1.5 * into * normal[1];
    }
    expect(leaps).toBeGreaterThan(0);
    expect(leaps).toBeLessThan(5);
    expect(Math.hypot(found!.x - x, found!.y - y)).toBeLessThan(1.5);
  });

  test('no more are there at once than wanted, of all ages, and each all its life', () => {
    const thinned = values({ rate: 60, life: 5, speed: 10, direction: 0, most: 20 });
    for (const at of [0, 3.7, 10, 10.5, 33]) {
      const ages = there(swarmAt({ ...thinned, before: 60 }, at)).map(({ x }) => x / 10);
      expect(ages.length).toBeGreaterThan(17);
      expect(ages.length).toBeLessThanOrEqual(20);
      for (const from of [0, 1, 2, 3, 4]) {
        const young = ages.filter((age) => age >= from && age < from + 1).length;
        expect(young).toBeGreaterThanOrEqual(3);
        expect(young).toBeLessThanOrEqual(5);
      }
    }
    // who is there at one moment is there at the next, but for the oldest
    const [now, then] = [10, 11].map((at) => there(swarmAt(thinned, at)).map(({ x }) => at - x / 10));
    for (const born of now!.filter((at) => at > 6.2))
      expect(then!.some((other) => Math.abs(other - born) < 1e-3)).toBe(true);
  });

  test('where the rate changes, each that is left out is so all its life', () => {
    const base = values({ life: 5, speed: 10, direction: 0, before: 0, most: 20 });
    const rate = (frame: number) => Math.max(0, frame - 24);
    const at = (seconds: number) => {
      const when = {
        seconds,
        perSecond: 24,
        moves: (id: string) => id === 'rate',
        at: (_: string, f: number) => rate(f),
      };
      const { counts } = birthsOf(base, when as never);
      return there(swarmAt({ ...base, counts: counts! }, seconds)).map(({ x }) => seconds - x / 10);
    };
    for (const seconds of [4, 6, 9]) {
      const [now, then] = [at(seconds), at(seconds + 0.5)];
      expect(now.length).toBeGreaterThan(8);
      expect(now.length).toBeLessThanOrEqual(20);
      for (const born of now.filter((time) => time > seconds - 4.3 && time < seconds - 0.05))
        expect(then.some((other) => Math.abs(other - born) < 1e-3)).toBe(true);
    }
  });

  test('a burst counts among the most that are there, and those that come after it have room again', () => {
    const both = values({ rate: 60, burst: 50, life: 5, most: 60 });
    expect(there(swarmAt(both, 2)).length).toBeLessThanOrEqual(60);
    expect(there(swarmAt(both, 2)).length).toBeGreaterThan(50);
    const later = there(swarmAt(both, 20)).length;
    expect(later).toBeGreaterThan(56);
    expect(later).toBeLessThanOrEqual(60);
    expect(there(swarmAt(values({ rate: 60, burst: 50, life: 5, most: 20 }), 0))).toHaveLength(20);
  });

  test('gusts take along those together that are near each other, each frame by itself', () => {
    const calm = { rate: 0, burst: 2000, life: 99, speed: 0, emitter: 'box', wide: 2000, high: 2000 };
    const [still, blown] = [there(swarmAt(values(calm), 5)), there(swarmAt(values({ ...calm, gust: 40 }), 5))];
    const taken = still.map(({ x, y }, i) => [blown[i]!.x - x, blown[i]!.y - y] as const);
    const far = taken.reduce((sum, [x, y]) => sum + x * x + y * y, 0) / taken.length;
    expect(Math.sqrt(far)).toBeGreaterThan(25);
    expect(Math.sqrt(far)).toBeLessThan(60);
    const alike = (from: number, to: number): number => {
      let [sum, count] = [0, 0];
      for (let i = 0; i < 400; i++)
        for (let k = 0; k < i; k++) {
          const apart = Math.hypot(still[i]!.x - still[k]!.x, still[i]!.y - still[k]!.y);
          if (apart < from || apart > to) continue;
          sum += taken[i]![0] * taken[k]![0] + taken[i]![1] * taken[k]![1];
          count++;
        }
      return sum / count / far;
    };
    expect(alike(0, 25)).toBeGreaterThan(0.85);
    expect(Math.abs(alike(600, 900))).toBeLessThan(0.4);
    // a moment later they are almost there still
    const later = there(swarmAt(values({ ...calm, gust: 40 }), 5.04));
    const moved = later.map(({ x, y }, i) => Math.hypot(x - blown[i]!.x, y - blown[i]!.y));
    expect(Math.max(...moved)).toBeLessThan(6);
    expect(Math.max(...moved)).toBeGreaterThan(0.1);
  });

  test('what has come to lie is taken no further by gusts', () => {
    const fallen = values({
      ...{ rate: 0, burst: 40, life: 60, emitter: 'line', wide: 800, speed: 0, gravity: 400 },
      ...{ gust: 50, meets: 'lie', floor: [0, 100] },
    });
    const at = (seconds: number) => there(swarmAt(fallen, seconds)).map(({ x, y }) => ({ x, y }));
    const [then, now] = [at(5), at(12)];
    expect(now).toEqual(then);
    expect(new Set(then.map(({ y }) => Math.round(y)))).toEqual(new Set([100]));
  });

  test('those that rise are gone at a line above them that is turned over', () => {
    const rising = { rate: 60, life: 4, direction: -90, speed: 100, meets: 'go', floor: [0, -150], tilt: 180 };
    const left = there(swarmAt(values(rising), 4));
    expect(Math.min(...left.map(({ y }) => y))).toBeGreaterThanOrEqual(-150.01);
    expect(Math.min(...left.map(({ y }) => y))).toBeLessThan(-145);
    expect(Math.abs(left.length - 90)).toBeLessThanOrEqual(1);
  });
});

const [W, H] = [80, 60];
/** A single still particle in the middle, drawn. @returns coverage by pixel */
function drawn(change: object): Float32Array {
  const own = {
    ...BEGINS,
    ...CALM,
    at: [W / 2, H / 2],
    rate: 0,
    burst: 1,
    life: 9,
    speed: 0,
    opacity: 1,
    shines: false,
    ...change,
  };
  const picture = (particles as unknown as DrawnSource).draw({ ...own, seconds: 1 } as never, {
    ...rig,
    size: { w: W, h: H },
    line: () => ({}) as never,
    picture: () => null,
  });
  const floats = floatsOf(rig, picture);
  picture.release();
  return floats.filter((_, i) => i % 4 === 3);
}
const area = (cover: Float32Array): number => cover.reduce((a, b) => a + b, 0);

describe('figures', () => {
  test('cover what their formulas enclose', () => {
    expect(Math.abs(area(drawn({ figure: 'disc', grain: 30 })) / (Math.PI * 15 ** 2) - 1)).toBeLessThan(0.01);
    expect(Math.abs(area(drawn({ figure: 'scrap', grain: 20, long: 1.5 })) / (20 * 30) - 1)).toBeLessThan(0.03);
    // a parabola to either side
    expect(Math.abs(area(drawn({ figure: 'leaf', grain: 20, long: 1.5 })) / ((4 / 3) * 30 * 10) - 1)).toBeLessThan(
      0.04,
    );
  });

  test('are drawn out along their way by how fast they are', () => {
    const still = drawn({ figure: 'disc', grain: 6 });
    const fast = drawn({ figure: 'disc', grain: 6, speed: 300, direction: 0, at: [W / 2 - 300, H / 2], drawn: 0.1 });
    const wide = (cover: Float32Array) =>
      Array.from({ length: W }, (_, x) => cover[(H / 2) * W + x]!).filter((v) => v > 0.5).length;
    expect(wide(fast) - wide(still)).toBeGreaterThanOrEqual(29);
    expect(wide(fast) - wide(still)).toBeLessThanOrEqual(31);
  });

  test('what is finer than a pixel is as faint as it is fine, wherever it lies', () => {
    for (const off of [0, 0.3, 0.5])
      expect(Math.abs(area(drawn({ figure: 'scrap', grain: 0.5, at: [W / 2 + off, H / 2] })) - 0.25)).toBeLessThan(0.3);
  });
});

test('all that are ready made show something in their first seconds and stay within bounds', () => {
  for (const { name, values: own } of SWARMS) {
    for (const name_ of Object.keys(own)) expect([name, name_ in particles.params]).toEqual([name, true]);
    const at = ((own['at'] as [number, number] | undefined) ?? [0, 0]).map((v, i) => v + [640, 360][i]!);
    const list = there(swarmAt({ ...BEGINS, ...own, at } as unknown as Swarming, 2));
    const seen = list.filter(({ x, y }) => x > 0 && x < 1280 && y > 0 && y < 720);
    expect([name, seen.length > 15]).toEqual([name, true]);
  }
});
