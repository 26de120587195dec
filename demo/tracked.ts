// The tracks of the demo, as the application measured them, and what follows them.
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { still } from '../src/core/base/value';
import { perform, type Edit } from '../src/core/document/edit';
import { followTrack } from '../src/core/document/edits/follow';
import { addMask } from '../src/core/document/edits/masks';
import { addPass, newPass } from '../src/core/document/edits/passes';
import { addTrack } from '../src/core/document/edits/tracks';
import { newMask, type MaskId } from '../src/core/document/mask';
import { stockOf, type Layer, type Pass, type PassId, type Project, type Shot } from '../src/core/document/schema';
import { quadAbout, type Quad, type Track, type TrackId } from '../src/core/document/track';
import { readTrackCsv } from '../src/core/formats/track-file';
import { packSamples, withSamples } from '../src/core/track/samples';

const RATE = { num: 24, den: 1 };
const SIZE = { w: 1280, h: 720 };

/** @param half of the sides of its pattern; a plane has its four corners */
async function readTrack(
  id: string,
  name: string,
  file: string,
  stock: string,
  half: readonly [number, number],
): Promise<Track> {
  const text = await readFile(join(import.meta.dirname, 'tracks', `${file}.csv`), 'utf8');
  const { kind: read, rows } = readTrackCsv(text, file);
  const kind = id === 'sway' ? 'sway' : read;
  const start = rows.get(0)!.points;
  const middle = kind === 'sway' ? ([0, 0] as const) : start[0]!;
  return {
    id: `track-${id}` as TrackId,
    name,
    stock: `stock-${stock}` as Track['stock'],
    kind,
    rate: RATE,
    start: 0,
    patterns: [kind === 'plane' ? (start.map((point) => [...point]) as Quad) : quadAbout(middle, ...half)],
    reach: 45,
    samples: packSamples(withSamples({ first: 0, rows: [] }, rows), kind),
    fixed: [],
  };
}

const showing = (shot: Shot, stock: string): Layer => shot.layers.find((layer) => stockOf(layer) === `stock-${stock}`)!;
const passWith = (id: string, type: string, values: Record<string, unknown>): Pass =>
  newPass(`pass-${id}` as PassId, type, SIZE, values);

/** The project with its tracks, and the shots in which something follows them. */
export async function tracked(
  project: Project,
  shots: Record<'lantern' | 'magic' | 'banner' | 'buoy' | 'flight' | 'byHand', Shot>,
): Promise<Project> {
  const [lantern, banner, buoy, flight, sway] = await Promise.all([
    readTrack('lantern', 'Lantern', 'lantern', 'even', [37, 55]),
    readTrack('banner', 'Banner', 'harbour-banner', 'banner', [0, 0]),
    readTrack('buoy', 'Buoy', 'buoy-waves', 'buoy', [46, 51]),
    readTrack('kite', 'Kite', 'kite-flight', 'flight', [44, 45]),
    readTrack('sway', 'Sway', 'tower-by-hand', 'byHand', [589, 331]),
  ]);
  const at = (shot: Shot, stock: string) => ({ shot: shot.id, layer: showing(shot, stock).id, frame: 0 });
  const [onBanner, atBuoy, atKite, atTower] = [
    at(shots.banner, 'kite'),
    at(shots.buoy, 'buoy'),
    at(shots.flight, 'flight'),
    at(shots.byHand, 'byHand'),
  ];
  const cloth = banner.patterns[0]!;
  const CORNERS = ['topLeft', 'topRight', 'bottomRight', 'bottomLeft'];
  const pin = passWith('pin', 'corner-pin', Object.fromEntries(CORNERS.map((name, i) => [name, cloth[i]])));
  const spot = newMask('mask-buoy' as MaskId, 'Buoy', {
    kind: 'ellipse',
    centre: still([0, 12] as [number, number]),
    size: still([240, 380] as [number, number]),
    rotation: still(0),
  });
  const steps: ((now: Project) => Edit)[] = [
    ...[lantern, banner, buoy, flight, sway].map((track) => () => addTrack(track)),
    ...[shots.lantern, shots.magic].map(
      (shot) => (now: Project) =>
        followTrack(now, at(shot, 'glow'), {
          track: lantern.id,
          via: showing(shot, 'even').id,
          paths: ['place.position'],
        }),
    ),
    () => addPass(onBanner, pin),
    (now) =>
      followTrack(now, onBanner, {
        track: banner.id,
        via: showing(shots.banner, 'banner').id,
        paths: CORNERS.map((name) => `pass.${pin.id}.${name}`),
      }),
    () => addMask(atBuoy, { ...spot, feather: still(90) }),
    () =>
      addPass(atBuoy, {
        ...passWith('focus', 'blur', { radius: 11 }),
        area: { masks: [spot.id], side: 'outside' },
      }),
    (now) => followTrack(now, atBuoy, { track: buoy.id, via: atBuoy.layer, paths: [`mask.${spot.id}.centre`] }),
    () =>
      addPass(
        atKite,
        passWith('trail', 'trail', {
          track: flight.id,
          length: 40,
          width: 16,
          opacity: 0.85,
          colour: [[0.98, 0.93, 0.8]],
        }),
      ),
    () => addPass(atTower, passWith('steady', 'steady', { track: sway.id, way: 'still' })),
    () => addPass(atTower, passWith('straighten', 'straighten', { from: [-300, 16], to: [300, -16] })),
  ];
  return steps.reduce((now, make) => perform(now, make(now))!.project, project);
}
