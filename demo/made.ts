// Shots of the demo that are made of titles and shapes: who keeps the light, the harbour's log, and the credits.
import { still, type Value } from '../src/core/base/value';
import { perform } from '../src/core/document/edit';
import { ARRIVALS, letArrive } from '../src/core/document/edits/arrive';
import { newLayer, newSource } from '../src/core/document/edits/layers';
import { newProject } from '../src/core/document/edits/project';
import { addReadyMade, READY_MADE } from '../src/core/document/edits/ready-made';
import type { Layer, LayerId, ProjectId, Shot } from '../src/core/document/schema';

type Pair = [number, number];
type Colour = [number, number, number];
const INK: Colour = [0.16, 0.19, 0.27];
const PAGE: Colour = [0.93, 0.89, 0.79];
const RUST: Colour = [0.67, 0.27, 0.16];
const WRITING = { font: 'caveat', weight: 'bold', colour: INK, align: 'left', size: [1280, 720] };

const over = <T>(from: number, to: number, first: T, last: T): Value<T> => ({
  keys: [
    { at: from, value: first, ease: 'smooth' },
    { at: to, value: last, ease: 'linear' },
  ],
});

/** @param shot an empty one to begin with */
function withReadyMade(shot: Shot, name: string, says: Readonly<Record<string, string>>, fresh: () => string): Shot {
  const base = { ...newProject('demo' as ProjectId, 'Demo', '2026-01-12T18:30:00.000Z'), shots: [shot] };
  const made = READY_MADE.find((item) => item.name === name)!;
  const { project } = perform(base, addReadyMade(base, shot.id, made, fresh))!;
  const [done] = project.shots;
  const worded = (layer: Layer): Layer => {
    const now = layer.source.values['text'];
    const text = now && 'still' in now ? says[String(now.still)] : undefined;
    const values = { ...layer.source.values, text: still(text) };
    return text ? { ...layer, source: { ...layer.source, values } } : layer;
  };
  return { ...done!, layers: done!.layers.map(worded) };
}

/** @param shot makes one of layers @param layer a layer of the stock @param fresh ids */
export function madeShots(shot: (name: string, layers: Layer[]) => Shot, tower: Layer, fresh: () => string): Shot[] {
  const made = (type: string, name: string, at: Pair, values: Readonly<Record<string, unknown>>): Layer => {
    const layer = newLayer(fresh() as LayerId, name, newSource(type, values), { start: 0, length: 120 });
    layer.place.position = still(at);
    return layer;
  };
  const animated = (layer: Layer, name: string, value: Value<unknown>): Layer => ({
    ...layer,
    source: { ...layer.source, values: { ...layer.source.values, [name]: value } },
  });

  const named = withReadyMade(
    shot('Keeper of the light', [tower]),
    'lower-third',
    { 'Name\nwhat they do': 'Ottilie Reed\nkeeps the signal tower' },
    fresh,
  );
  const badged = withReadyMade(named, 'badge', { 1: '7' }, fresh);
  const keeper = {
    ...badged,
    layers: badged.layers.map((layer) =>
      layer.name === 'badge' || layer.name === '1'
        ? { ...layer, place: { ...layer.place, position: still([470, -210] as Pair) } }
        : layer,
    ),
  };

  const SHIPS = [
    ['Paper Gull', '4:10'],
    ['Lantern Fish', '5:35'],
    ['Night ferry', '9:20'],
    ['Copper Kettle', '9:55'],
  ] as const;
  const TOP = -96;
  const ROW = 84;
  const rows = SHIPS.flatMap(([ship, time], i) => {
    const y = TOP + i * ROW;
    const name = made('title', ship, [-250, y], { ...WRITING, text: ship, height: 34, wrap: 420 });
    const when = made('title', `at ${time}`, [330, y], {
      ...WRITING,
      text: time,
      height: 30,
      align: 'right',
      wrap: 200,
    });
    // the last one is being written
    const last = i === SHIPS.length - 1;
    return last
      ? [animated(name, 'shown', over(40, 76, 0, 1)), animated(when, 'shown', over(82, 96, 0, 1))]
      : [name, when];
  });
  const underline = animated(
    made('shape', 'line under the ferry', [-352, TOP + 2 * ROW + 34], {
      form: 'line',
      width: 210,
      line: 6,
      lineColour: RUST,
      taper: 0.2,
      size: [1280, 720],
    }),
    'to',
    over(8, 28, 0, 1),
  );
  const log = shot('Harbour log', [
    underline,
    ...rows,
    made('shape', 'rule', [0, -170], { form: 'line', width: 900, line: 3, lineColour: INK, size: [1280, 720] }),
    made('title', 'heading', [0, -232], {
      ...WRITING,
      align: 'centre',
      font: 'zilla-slab',
      text: 'Harbour log',
      height: 40,
    }),
    made('shape', 'page', [0, 0], {
      form: 'rectangle',
      width: 1060,
      height: 640,
      radius: 10,
      fill: 'ramp',
      run: 70,
      colours: [
        [0, PAGE],
        [1, [0.85, 0.79, 0.66]],
      ],
      line: 10,
      lineColour: INK,
      lies: 'inside',
      size: [1280, 720],
    }),
    made('gradient', 'table', [0, 0], {
      colours: [
        [0, [0.2, 0.13, 0.1]],
        [1, [0.11, 0.08, 0.08]],
      ],
      size: [1280, 720],
    }),
  ]);

  const dusk = made('gradient', 'dusk', [0, 0], {
    colours: [
      [0, [0.07, 0.09, 0.17]],
      [0.65, [0.2, 0.22, 0.36]],
      [1, [0.62, 0.38, 0.3]],
    ],
    size: [1280, 720],
  });
  const credits = withReadyMade(
    shot('Credits', [dusk]),
    'credits',
    {
      'Paper and card\nyour name\n\nLight\nyour name\n\nSound\nyour name\n\nThank you':
        'Paper Harbour\n\nPaper and card\nOttilie Reed\n\nLanterns\nBram Quill\n\nThe captain\nhimself\n\nGood night',
    },
    fresh,
  );
  return [keeper, arrived(log, 'heading'), credits];
}

/** Lets a title of a shot arrive, letter by letter from below. */
function arrived(shot: Shot, name: string): Shot {
  const base = { ...newProject('demo' as ProjectId, 'Demo', '2026-01-12T18:30:00.000Z'), shots: [shot] };
  const layer = shot.layers.find((item) => item.name === name)!.id;
  const rise = ARRIVALS.find((way) => way.name === 'rise')!;
  return perform(base, letArrive(base, { shot: shot.id, layer }, rise, 20))!.project.shots[0]!;
}
