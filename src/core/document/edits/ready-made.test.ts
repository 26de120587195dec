import { describe, expect, test } from '@jest/globals';
import { boxOf } from '../../place/boxes';
import { placeAt } from '../../place/place';
import { planFrame } from '../../plan/plan';
import { projectOf, shotMoment, SHOT } from '../../testing/documents';
import { perform } from '../edit';
import { projectSchema } from '../schema';
import { addReadyMade, READY_MADE } from './ready-made';

let count = 0;
const fresh = () => `ready-${++count}`;
const SIZES = [
  [1280, 720, 96],
  [1920, 1080, 240],
  [320, 640, 5],
] as const;

describe.each(READY_MADE.map((ready) => [ready.title, ready] as const))('%s', (_, ready) => {
  test.each(SIZES)(
    'in a shot of %i×%i with %i frames is a right document whose every frame can be planned',
    (width, height, length) => {
      const base = projectOf([], { width, height, length });
      const { project } = perform(base, addReadyMade(base, SHOT, ready, fresh))!;
      expect(projectSchema.parse(JSON.parse(JSON.stringify(project)))).toEqual(project);
      const [shot] = project.shots;
      expect(new Set(shot!.layers.map(({ name }) => name)).size).toBe(shot!.layers.length);
      for (const { span } of shot!.layers) expect(span.start + span.length).toBeLessThanOrEqual(length);
      for (const frame of [0, Math.floor(length / 2), length - 1])
        expect(planFrame(project, SHOT, frame).width).toBe(width);
      // twice in one shot the layers are told apart
      const twice = perform(project, addReadyMade(project, SHOT, ready, fresh))!.project;
      const names = twice.shots[0]!.layers.map(({ name }) => name);
      expect(new Set(names).size).toBe(names.length);
    },
  );
});

const added = (name: string) => {
  const base = projectOf([], { width: 1280, height: 720, length: 120 });
  const { project } = perform(
    base,
    addReadyMade(
      base,
      SHOT,
      READY_MADE.find((item) => item.name === name)!,
      fresh,
    ),
  )!;
  return { project, shot: project.shots[0]! };
};

test('a lower third lies in the lower left of the shot, inside of its edges', () => {
  const { project, shot } = added('lower-third');
  const bar = boxOf(
    project,
    shot,
    shot.layers.find((layer) => layer.name === 'bar')!,
    60,
  )!;
  expect(bar.left).toBeGreaterThan(-640 + 30);
  expect(bar.right).toBeLessThan(0);
  expect(bar.top).toBeGreaterThan(0);
  expect(bar.bottom).toBeLessThan(360 - 30);
});

test('credits go by whole pixels a frame, from below the shot until above it', () => {
  const { shot } = added('credits');
  const [roll] = shot.layers;
  const y = (frame: number) => placeAt(shotMoment(shot, roll!, frame)).position[1];
  const step = y(1) - y(0);
  expect(Number.isInteger(step)).toBe(true);
  for (let frame = 1; frame < 120; frame++) expect(y(frame) - y(frame - 1)).toBeCloseTo(step, 6);
  const { size } = roll!.source.values as { size: { still: [number, number] } };
  expect(y(0) - size.still[1] / 2).toBeGreaterThanOrEqual(360 - 34);
  expect(y(119) + size.still[1] / 2).toBeLessThanOrEqual(-360 + 34);
});
