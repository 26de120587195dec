import fc from 'fast-check';
import type { Edit } from '../document/edit';
import { addLayer, newLayer, orderLayer, removeLayer, renameLayer, setBlend, setGain, setOpacity, setPlace, switchLayer } from '../document/edits/layers';
import { moveKeys, setJitter, togglePeg } from '../document/edits/keys';
import { setRange, toggleMarker } from '../document/edits/markers';
import { duplicateLayer, freezeHere, moveLayer, removeLayers, reverseLayer, setSpeed, slipLayer, splitLayer, trimEnd, trimStart } from '../document/edits/time';
import { keysOf } from '../document/values';
import { addPass, newPass, orderPass, removePass, setPassValue, switchPass } from '../document/edits/passes';
import { addShot, addStock, newProject, setShot } from '../document/edits/project';
import { perform } from '../document/edit';
import type { Layer, LayerId, PassId, Project, ProjectId, Shot, ShotId, Source, Stock, StockId } from '../document/schema';
import { BLEND_MODES } from '../picture/blend';
import { PASSES } from '../passes/registry';

export const SHOT = 'shot-1' as ShotId;
export const RATE = { num: 24, den: 1 };

export const shotOf = (change: Partial<Shot> = {}): Shot => ({
  id: SHOT, name: 'Night ferry', width: 64, height: 36, rate: RATE, length: 48, background: [0, 0, 0], light: 'display', markers: [], range: null, layers: [], ...change,
});

export const clipStock = (id: string, width = 64, height = 36): Stock => ({
  id: id as StockId, name: id, file: `${id}.webm`, kind: 'video', facts: { width, height, rate: RATE, seconds: 2, codec: 'vp9', alpha: false, bytes: 1000 },
});

export const colourSource = (colour: [number, number, number], width = 64, height = 36): Source => ({ kind: 'colour', colour: { still: colour }, width, height });

export function layerOf(id: string, source: Source, change: Partial<Layer> = {}): Layer {
  return { ...newLayer(id as LayerId, id, source, { start: 0, length: 48 }), ...change };
}

/** A project with one shot, the given layers (top first) and a clip called `plate`. */
export function projectOf(layers: Layer[] = [], shot: Partial<Shot> = {}): Project {
  const edits = [addStock(clipStock('plate')), addShot(shotOf({ layers, ...shot }))];
  return edits.reduce((project, edit) => perform(project, edit)!.project, newProject('project-1' as ProjectId, 'Paper Harbour', '2026-01-12T18:30:00.000Z'));
}

/** Counts what is made, so that ids differ. */
let made = 0;

/** Any edit that can be made on the shot of `projectOf`, chosen by what is there. */
export const anyEdit: fc.Arbitrary<(project: Project) => Edit> = fc
  .tuple(fc.nat(32), fc.nat(1000), fc.double({ min: 0, max: 1, noNaN: true }))
  .map(([which, n, x]) => (project: Project) => {
    const shot = project.shots[0]!;
    const id = () => `id-${(made += 1)}`;
    const layer = shot.layers[n % Math.max(1, shot.layers.length)];
    if (!layer || which === 0) return addLayer(SHOT, layerOf(id(), colourSource([x, 0.5, 1 - x])), n % (shot.layers.length + 1));
    const at = { shot: SHOT, layer: layer.id };
    const pass = layer.passes[n % Math.max(1, layer.passes.length)];
    const newOne = () => addPass(at, newPass(id() as PassId, PASSES[n % PASSES.length]!.type));
    const edits: (() => Edit)[] = [
      () => removeLayer(project, at),
      () => orderLayer(project, at, n % shot.layers.length),
      () => renameLayer(project, at, `layer ${n}`),
      () => switchLayer(project, at, (['shown', 'solo', 'locked'] as const)[n % 3]!),
      () => setOpacity(project, at, x),
      () => setBlend(project, at, BLEND_MODES[n % BLEND_MODES.length]!),
      () => setGain(project, at, 2 * x),
      () => moveLayer(project, at, (n % 60) - 10),
      () => trimStart(project, at, n % 60),
      () => trimEnd(project, at, n % 60),
      () => setPlace(project, at, { position: [n % 40, 40 * x - 20], rotation: 360 * x, scale: [0.3 + x, 0.3 + x], flipX: n % 2 === 0 }),
      () => setShot(SHOT, { background: n % 2 ? null : [x, x, x], light: n % 3 ? 'display' : 'linear' }),
      newOne,
      newOne,
      () => (pass ? removePass(project, at, pass.id) : newOne()),
      () => (pass ? switchPass(project, at, pass.id) : newOne()),
      () => (pass ? orderPass(project, at, pass.id, n % layer.passes.length) : newOne()),
      () => (pass?.type === 'adjust' ? setPassValue(project, at, pass.id, 'exposure', 4 * x - 2) : newOne()),
      () => togglePeg(project, { ...at, frame: n % 48 }, 'place.position'),
      () => togglePeg(project, { ...at, frame: n % 48 }, 'opacity', 'smooth'),
      () => setJitter(project, at, 'place.rotation', n % 2 ? { amount: 10 * x, every: 1 + (n % 5), smooth: x, seed: n } : null),
      () => moveKeys(SHOT, [...keysOf(layer.place.position)].slice(0, 1).map((key) => ({ layer: layer.id, path: 'place.position', at: key.at })), (n % 21) - 10),
      () => splitLayer(project, { ...at, frame: layer.span.start + (n % 50) }, id),
      () => duplicateLayer(project, at, 5, 1, id),
      () => slipLayer(project, at, (n % 30) - 15),
      () => reverseLayer(project, at),
      () => freezeHere(project, { ...at, frame: layer.span.start + 1 + (n % 40) }),
      () => setSpeed(project, at, { still: 4 * x - 2 }, n % 2 === 0),
      () => removeLayers(project, SHOT, [layer.id], n % 2 === 0),
      () => toggleMarker(project, SHOT, { at: n % 48, name: `m${n}`, colour: 'sand' }),
      () => setRange(SHOT, n % 3 ? { from: n % 20, to: 20 + (n % 28) } : null),
      () => (pass?.type === 'blur' ? setPassValue(project, at, pass.id, 'radius', 3 * x) : newOne()),
    ];
    return edits[(which - 1) % edits.length]!();
  });
