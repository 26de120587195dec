import { beforeAll, describe, expect, test } from '@jest/globals';
import { Picture } from '../picture/picture';
import { testRig, type TestRig } from '../testing/rig';
import { birthsOf, bornAt, countAt, spotAt, spotsOf, wayAt } from './births';
import { landed } from './landing';

const LIFE = { life: 2, lifeVaries: 0, before: 0 };
/** Values over frames at 24 a second. */
const when = (seconds: number, rate: (frame: number) => number, at: (frame: number) => number) => ({
  seconds,
  perSecond: 24,
  moves: () => true,
  at: (name: 'rate' | 'at', frame: number) => (name === 'rate' ? rate(frame) : [at(frame), 0]),
});

describe('coming by a rate with keyframes', () => {
  const ramp = (frame: number) => frame; // 24 more a second with every second: 12·t² have come
  test('as many have come as the rate says in sum, and each came when it did', () => {
    const { counts } = birthsOf(
      { ...LIFE, rate: 0 },
      when(5, ramp, () => 0),
    );
    for (const t of [3.5, 4, 4.75]) expect(countAt(counts!, t)).toBeCloseTo(12 * t * t, -1);
    for (const t of [3.25, 4.1, 4.9]) expect(bornAt(counts!, countAt(counts!, t))).toBeCloseTo(t, 6);
  });

  test('when one came does not depend on when it is asked', () => {
    const early = birthsOf(
      { ...LIFE, rate: 0 },
      when(3, ramp, () => 0),
    ).counts!;
    const late = birthsOf(
      { ...LIFE, rate: 0 },
      when(4.2, ramp, () => 0),
    ).counts!;
    for (const which of [75, 90, 100]) expect(bornAt(late, which)).toBeCloseTo(bornAt(early, which), 9);
  });

  test('each begins where the middle was when it came', () => {
    const { way } = birthsOf(
      { ...LIFE, rate: 9 },
      when(
        5,
        () => 9,
        (frame) => 10 * frame,
      ),
    );
    expect(wayAt(way!, 4)[0]).toBeCloseTo(960);
    expect(wayAt(way!, 4 + 1 / 48)[0]).toBeCloseTo(965);
    expect(way!.points.length).toBeLessThan(60); // no longer ago than one lasts
  });

  test('without keyframes nothing is asked', () => {
    expect(birthsOf({ ...LIFE, rate: 9 }, { ...when(5, ramp, ramp), moves: () => false })).toEqual({});
  });
});

describe('coming down on a line', () => {
  /** The same in very small steps. */
  function stepped(y: number, pace: number, pull: number, drag: number, line: number, bounce: number, age: number) {
    const dt = 1e-5;
    for (let t = 0; t < age; t += dt) {
      pace += (pull - drag * pace) * dt;
      y += pace * dt;
      if (y > line && pace > 0) {
        y = line;
        pace *= -bounce;
      }
    }
    return y;
  }
  test.each([
    ['thrown up', { y: 300, pace: -400, pull: 700, drag: 0 }, 0.5, 2.2],
    ['let fall through air', { y: 0, pace: 0, pull: 900, drag: 0.8 }, 0.6, 1.9],
    ['thrown down', { y: 100, pace: 500, pull: 300, drag: 0.3 }, 0.4, 1.1],
    ['still on its way', { y: 0, pace: 0, pull: 200, drag: 0 }, 0.6, 0.8],
  ])('%s, it is where small steps lead', (_, fall, bounce, age) => {
    const { y } = landed(fall, 400, bounce, age);
    expect(Math.abs(y - stepped(fall.y, fall.pace, fall.pull, fall.drag, 400, bounce, age))).toBeLessThan(1.5);
  });

  test('without a bounce it lies where it fell: after √(2·way/pull) seconds', () => {
    const found = landed({ y: 0, pace: 0, pull: 800, drag: 0 }, 400, 0, 3);
    expect(found).toEqual({ y: 400, met: expect.closeTo(1, 5), lies: expect.closeTo(1, 5) });
  });

  test('what is thrown up from below the line lands on it when it comes down', () => {
    const up = { y: 430, pace: -400, pull: 400, drag: 0 };
    expect(landed(up, 400, 0, 1).met).toBe(Infinity);
    // back where it began after 2·400/400 seconds; 30 pixels above that a little before
    const found = landed(up, 400, 0, 3);
    expect(found).toMatchObject({ y: 400, met: expect.closeTo(1 + Math.sqrt(1 - (2 * 30) / 400), 4) });
    expect(landed({ ...up, pace: -10 }, 400, 0, 3).met).toBe(Infinity);
  });

  test('what never comes down does not land', () => {
    expect(landed({ y: 0, pace: -50, pull: -20, drag: 0 }, 400, 0.5, 9)).toMatchObject({
      met: Infinity,
      lies: Infinity,
    });
  });
});

describe('coming from where a layer is not clear', () => {
  let rig: TestRig;
  beforeAll(async () => {
    rig = await testRig(64e6);
  });
  const pictureOf = (alpha: (x: number, y: number) => number, w: number, h: number) => {
    const picture = Picture.make(rig.arena, { x: 0, y: 0, w, h });
    const floats = rig.arena.floats(picture.at, w * h * 4);
    for (let i = 0; i < w * h; i++) floats.fill(alpha(i % w, Math.floor(i / w)), 4 * i, 4 * i + 4);
    return picture;
  };
  test('as often as it is solid, and nowhere else', () => {
    // a solid left and a right that is a quarter there, with a gap
    const alpha = (x: number) => (x < 100 ? 1 : x >= 300 && x < 400 ? 0.25 : 0);
    const picture = pictureOf(alpha, 600, 64);
    const spots = spotsOf(rig, picture)!;
    const lots = Array.from({ length: 4000 }, (_, i) =>
      spotAt(spots, [(i + 0.5) / 4000, (i * 0.37) % 1, (i * 0.61) % 1]),
    );
    expect(lots.filter(([x]) => x < 100).length / 4000).toBeCloseTo(0.8, 1);
    for (const [x, y] of lots) {
      expect(alpha(Math.round(x / 4) * 4 - 2) > 0 || alpha(Math.round(x / 4) * 4 + 2) > 0).toBe(true);
      expect(y).toBeLessThan(64);
    }
    picture.release();
  });
  test('from a clear one none come', () => {
    const picture = pictureOf(() => 0, 40, 30);
    expect(spotsOf(rig, picture)).toBeNull();
    picture.release();
  });
});
