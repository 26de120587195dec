import { expect, test } from '@jest/globals';
import type { CoveragePlan } from '../core/masks/coverage';
import { matteId, packMatte, type DrawnMatte } from '../core/masks/matte-data';
import type { AlonePlan, FramePlan, LayerPlan } from '../core/plan/types';
import { MatteSender } from './mattes';

/** a matte can be found as long as its document lives */
const documents: DrawnMatte[] = [];
function drawn(seed: number): string {
  const matte = packMatte(
    Uint8Array.from({ length: 64 }, (_, i) => (i * seed) % 256),
    8,
    8,
  );
  documents.push(matte);
  return matteId(matte);
}
const layerWith = (matte: string): LayerPlan =>
  ({
    passes: [],
    after: [],
    cover: [{ masks: [{ shape: { kind: 'matte', id: matte } }] } as unknown as CoveragePlan],
  }) as unknown as LayerPlan;
/** @returns a sender, and what it has sent, each time in one go */
function rig() {
  const sent: string[][] = [];
  const sender = new MatteSender(async (mattes) => void sent.push(mattes.map(([id]) => id)));
  return { sender, sent };
}

test('a worker gets each drawn matte once', async () => {
  const [a, b] = [drawn(3), drawn(5)];
  const { sender, sent } = rig();
  await sender.forLayers([layerWith(a), layerWith(a)]);
  await sender.forLayers([layerWith(a), layerWith(b)]);
  await sender.forLayers([layerWith(b)]);
  expect(sent).toEqual([[a], [b]]);
});

test('with the mattes of layers that a layer or a frame takes from others or shows', async () => {
  const [own, giver, then, inner] = [drawn(7), drawn(11), drawn(12), drawn(13)];
  const tables = {
    mattes: { key: layerWith(giver) },
    lines: { key: layerWith(then) },
    shots: { key: { layers: [layerWith(inner)] } },
  };
  const alone = rig();
  await alone.sender.forLayers([{ ...layerWith(own), tables } as unknown as AlonePlan]);
  expect(alone.sent).toEqual([[own, giver, then, inner]]);
  const whole = rig();
  await whole.sender.forFrame({ layers: [layerWith(own)], ...tables } as unknown as FramePlan);
  expect(whole.sent).toEqual([[own, giver, then, inner]]);
});
