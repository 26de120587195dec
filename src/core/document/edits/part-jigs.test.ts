import { expect, test } from '@jest/globals';
import { still } from '../../base/value';
import { readDialledJig, writeDialledJig } from '../../formats/jig';
import { done } from '../../testing/boat';
import { clipStock, colourSource, layerOf, projectOf, SHOT } from '../../testing/documents';
import { layerIn } from '../find';
import { newMask, newShape, type MaskId } from '../mask';
import { projectSchema, type Layer, type LayerId, type LayerPart, type PassId, type Project } from '../schema';
import { fadesOf, setTransition } from './ends';
import { holderOfDial, holdersOf, possibleDials, usualDials, withJigValue } from './jig-dials';
import { addJig } from './jigs';
import { addMask, usesMasks } from './masks';
import { partJigOf, partJigs, partsThere, putPartJig, withPartJig } from './part-jigs';
import { addPass, newPass } from './passes';

let count = 0;
const fresh = () => `fresh-${++count}`;
const from = { shot: SHOT, layer: 'lamp' as LayerId };
const to = 'wall' as LayerId;
const ring = newMask('ring' as MaskId, 'ring', newShape('ellipse', { w: 64, h: 36 }), 'moss');
const lamp = layerOf('lamp', colourSource([1, 0.8, 0.4]), {});
lamp.place.position = still([10, -20]);
const bare = projectOf([lamp, layerOf('wall', colourSource([0.2, 0.3, 0.4]))], { width: 640, height: 360, length: 48 });
const glow = newPass('glow-1' as PassId, 'glow', null, { reach: 24, colour: [1, 0.5, 0] });
const inRing = { ...glow, area: { masks: ['ring' as MaskId], side: 'inside' as const } };
/** a lamp that glows within a ring and is wiped in over ten frames */
const lit: Project = [addMask(from, ring), addPass(from, inRing), setTransition(bare, from, 'in', 'wipe', 10)].reduce(
  (now, edit) => done(edit, now),
  bare,
);
const jigOf = (parts: LayerPart[], of = lit) => partJigOf(of, from, new Set(parts), { id: 'jig-1', name: 'lamplight' });
const layer = (project: Project, id: LayerId = to): Layer => layerIn(project.shots[0]!, id);
const put = (jig: ReturnType<typeof jigOf>, base = lit): Layer =>
  layer(done(putPartJig(base, SHOT, [to], jig, fresh), base));

test('what was done to a layer goes through a file and is done to another, with nothing that was not kept', () => {
  const jig = jigOf(['passes', 'masks', 'ends']);
  const read = readDialledJig(writeDialledJig(jig), 'lamplight.jig.json', 'jig-2');
  const kept = done(addJig(read), bare);
  expect(projectSchema.parse(JSON.parse(JSON.stringify(kept)))).toEqual(kept);
  const wall = put(partJigs(kept)[0]!, kept);
  expect(wall.passes.map(({ type }) => type)).toEqual(['glow']);
  expect(wall.passes[0]!.id).not.toBe('glow-1');
  expect(usesMasks(wall.passes[0]!, wall.masks[0]!.id)).toBe(true);
  expect(wall.ends.start?.type).toBe('wipe');
  expect(fadesOf(wall)).toEqual({ in: 10, out: 0 });
  const before = layer(lit);
  expect([wall.place, wall.source, wall.opacity]).toEqual([before.place, before.source, before.opacity]);
});

test('passes alone leave the masks behind; a place grows with the shot', () => {
  const passes = put(jigOf(['passes']));
  expect(passes.masks).toEqual([]);
  expect(passes.passes[0]!.area).toBeUndefined();
  expect(passes.ends).toEqual({});
  const place = jigOf(['place']);
  expect(put({ ...place, height: 180, width: 320 }).place.position).toEqual(still([20, -40]));
  expect(put(place).passes).toEqual([]);
});

test('only what is there is kept; what another project does not have is named', () => {
  expect(partsThere(layer(lit, from.layer))).toEqual(['place', 'passes', 'masks', 'ends']);
  expect(partsThere(layer(bare))).toEqual(['place']);
  expect(jigOf(['place', 'passes', 'ends'], bare).parts).toEqual(['place']);
  expect(() => jigOf(['passes', 'ends'], bare)).toThrow('lamp has no passes, no transitions to keep.');
  const own = { ...newPass('k' as PassId, 'difference-key'), values: { plate: still('empty-wall') } };
  const needing = { ...done(addPass(from, own as never), bare), stock: [{ ...clipStock('empty-wall') }] };
  expect(() => jigOf(['passes'], needing)).toThrow('needs empty-wall, which another project does not have');
});

test('its dials are those of its passes and transitions, and what is turned is what is put on', () => {
  const jig = jigOf(['passes', 'ends']);
  expect(holdersOf(jig).map(({ key, title }) => [key, title])).toEqual([
    ['glow-1', 'Glow'],
    ['start', 'Wipe in'],
  ]);
  const usual = usualDials(jig).map((dial) => `${holderOfDial(dial)} ${dial.value}`);
  expect(usual).toContain('glow-1 colour');
  expect(usual.filter((name) => name.startsWith('start'))).toHaveLength(1);
  expect(possibleDials(jig).length).toBeGreaterThan(usual.length);
  const turned = withJigValue(withJigValue(jig, 'glow-1', 'reach', 60), 'start', 'soft', 90);
  const wall = put(turned);
  expect(wall.passes[0]!.values['reach']).toEqual(still(60));
  expect(wall.ends.start!.values['soft']).toEqual(still(90));
  // and it is looked at half way through its transition
  expect(withPartJig(lit, { shot: SHOT, layer: to, frame: 40 }, turned, fresh).frame).toBe(5);
  expect(withPartJig(lit, { shot: SHOT, layer: to, frame: 40 }, jigOf(['passes']), fresh).frame).toBe(40);
  const chosen = { ...turned, dials: [{ end: 'start' as const, value: 'soft' }] };
  expect(readDialledJig(writeDialledJig(chosen), 'x.jig.json', 'jig-1')).toEqual(chosen);
});
