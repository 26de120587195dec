import { angle } from '../params/angle';
import { boolean } from '../params/boolean';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { point } from '../params/point';
import { ramp } from '../params/ramp';
import { seed } from '../params/seed';
import { size } from '../params/size';
import type { NumberParam } from '../params/number';
import { Picture } from '../picture/picture';
import { defineSource } from './define';
import { MOST_AT_ONCE, PARTICLE, swarmAt, type Swarming } from './swarm';

const FIGURES = ['dot', 'disc', 'scrap', 'leaf', 'flake'] as const;
const [COME, MOVE, LOOK] = ['Where they come from', 'How they move', 'What they look like'];
const share = (label: string, initial: number, help: string, group: string, most = 1): NumberParam =>
  number({ label, unit: '%', default: initial, min: 0, max: most, slider: [0, most], help, group });
const px = (
  label: string,
  initial: number,
  [min, max]: readonly [number, number],
  slider: readonly [number, number],
  help: string,
  group?: string,
): NumberParam => number({ label, unit: 'px', default: initial, min, max, slider, help, ...(group && { group }) });
const plain = (
  label: string,
  initial: number,
  max: number,
  slider: readonly [number, number],
  help: string,
  group?: string,
): NumberParam => number({ label, unit: '', default: initial, min: 0, max, slider, help, ...(group && { group }) });

/** Many small things that come, move and go: embers, leaves, snow, rain, dust, scraps. */
export const particles = defineSource({
  type: 'particles',
  title: 'Particles',
  words: ['snow', 'rain', 'embers', 'sparks', 'leaves', 'dust', 'confetti', 'smoke', 'magic dust', 'particle system'],
  help: 'Many small things that come, move and go by themselves. Each frame is computed by itself, so that every one is the same wherever playing begins. Relatives: Clouds, Glow for those that shine.',
  params: {
    figure: choice({
      label: 'Each is a',
      default: 'dot',
      options: [
        { value: 'dot', label: 'soft dot' },
        { value: 'disc', label: 'disc' },
        { value: 'scrap', label: 'scrap of paper' },
        { value: 'leaf', label: 'leaf' },
        { value: 'flake', label: 'flake' },
      ],
      help: 'What one of them looks like.',
    }),
    grain: px('As large as', 14, [0.2, 2000], [1, 120], 'From side to side, as they come.'),
    rate: plain(
      'A second',
      60,
      5000,
      [0, 400],
      `How many come in a second. No more than ${MOST_AT_ONCE} are there at once.`,
    ),
    life: plain('They last', 3, 600, [0.2, 12], 'Seconds from when one comes until it is gone.'),
    colours: ramp({
      label: 'Colours',
      default: [
        [0, [1, 0.86, 0.5]],
        [0.5, [0.96, 0.5, 0.18]],
        [1, [0.5, 0.13, 0.08]],
      ],
      help: 'From when one comes to when it goes, or one of these for each.',
    }),
    coloured: choice({
      label: 'Colours go',
      default: 'life',
      options: [
        { value: 'life', label: 'along its life' },
        { value: 'lot', label: 'by lot' },
      ],
      help: 'Whether each goes through all colours, or has one of them.',
    }),
    shines: boolean({
      label: 'They shine',
      default: true,
      help: 'They add light to each other instead of covering each other.',
    }),
    emitter: choice({
      label: 'From a',
      default: 'point',
      options: ['point', 'line', 'box', 'ellipse'].map((value) => ({ value, label: value })),
      help: 'Where they come from.',
      group: COME,
    }),
    at: point({ label: 'Middle', default: [0, 0], help: 'The middle of where they come from.', group: COME }),
    wide: {
      ...px('Wide', 1280, [0, 32768], [0, 2560], 'How wide that is.', COME),
      when: { choice: 'emitter', is: ['line', 'box', 'ellipse'] },
    },
    high: {
      ...px('High', 400, [0, 32768], [0, 1440], 'How high that is.', COME),
      when: { choice: 'emitter', is: ['box', 'ellipse'] },
    },
    burst: plain('At once', 0, MOST_AT_ONCE, [0, 500], 'How many more come all together on the first frame.', COME),
    before: plain(
      'Begun before',
      0,
      600,
      [0, 12],
      'For how many seconds they have been coming when the layer begins.',
      COME,
    ),
    direction: angle({
      label: 'Direction',
      default: -90,
      help: 'Where they go: 0° to the right, 90° down.',
      group: MOVE,
    }),
    spread: number({
      label: 'Spread',
      unit: '°',
      default: 50,
      min: 0,
      max: 360,
      slider: [0, 360],
      help: 'How far apart their directions are.',
      group: MOVE,
    }),
    speed: px('Speed', 160, [0, 20_000], [0, 800], 'How far they go in a second, as they come.', MOVE),
    gravity: px(
      'Falls',
      -30,
      [-20_000, 20_000],
      [-600, 600],
      'How much faster they fall with every second; less than 0 lets them rise.',
      MOVE,
    ),
    wind: px('Wind', 0, [-20_000, 20_000], [-600, 600], 'How far the air goes in a second, to the right.', MOVE),
    drag: number({
      label: 'Drag',
      unit: '',
      default: 0.4,
      min: 0,
      max: 50,
      slider: [0, 6],
      help: 'How much the air holds them up.',
      group: MOVE,
    }),
    wander: px('Wander', 24, [0, 5000], [0, 200], 'How far each strays from its way.', MOVE),
    lifeVaries: share('Life varies', 0.4, 'How differently long they last.', MOVE),
    speedVaries: share('Speed varies', 0.5, 'How differently fast they are.', MOVE),
    depth: share('Depth', 0, 'How much smaller and slower the far ones are.', MOVE),
    opacity: share('Opacity', 1, 'How solid they are.', LOOK),
    grainVaries: share('Size varies', 0.5, 'How differently large they are.', LOOK),
    ends: share('Size at the end', 0.4, 'How large they are when they go, of what they were.', LOOK, 20),
    long: number({
      label: 'Longer by',
      unit: '%',
      default: 1,
      min: 0.05,
      max: 20,
      slider: [0.2, 5],
      help: 'How much longer than wide they are.',
      group: LOOK,
    }),
    drawn: number({
      label: 'Drawn out',
      unit: '%',
      default: 0,
      min: 0,
      max: 1,
      slider: [0, 0.2],
      help: 'How much of their way in a second they are drawn out over, as rain or sparks are.',
      group: LOOK,
    }),
    spin: number({
      label: 'Spin',
      unit: '°',
      default: 0,
      min: 0,
      max: 3600,
      slider: [0, 720],
      help: 'How far they turn in a second, one way or the other.',
      group: LOOK,
    }),
    flutter: share('Flutter', 0, 'How much of their breadth they lose as they show their edge.', LOOK),
    appears: share('Appears over', 0.05, 'Part of its life in which one fades in.', LOOK),
    goes: share('Goes over', 0.5, 'Part of its life in which one fades out.', LOOK),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number, other particles.' }),
    size: size({ label: 'Size', default: [1280, 720], help: 'How large the picture is.' }),
  },
  timed: false,
  moment: (_, seconds) => ({ seconds }),
  draw(v, { kernels, arena, size: { w, h } }) {
    const { seconds = 0 } = v as unknown as { seconds?: number };
    const picture = Picture.make(arena, { x: 0, y: 0, w, h });
    kernels.fill(picture.at, picture.pixels, 0, 0, 0, 0);
    const list = swarmAt(v as unknown as Swarming, seconds);
    const figure = FIGURES.indexOf(v.figure as (typeof FIGURES)[number]);
    if (list.length)
      arena.scratch(list.byteLength + 16, (at) => {
        arena.floats(at, list.length).set(list);
        kernels.drawSwarm(at, list.length / PARTICLE, figure, picture.at, w, h, v.shines ? 1 : 0);
      });
    return picture;
  },
});

type Stops = readonly (readonly [number, readonly [number, number, number]])[];
interface Preset {
  name: string;
  title: string;
  words: string;
  help: string;
  values: Readonly<Record<string, unknown>>;
}
/** In what they say of places and sizes for a shot of 1280×720. */
const paper: Stops = [
  [0, [0.82, 0.3, 0.22]],
  [0.35, [0.93, 0.78, 0.42]],
  [0.7, [0.3, 0.5, 0.62]],
  [1, [0.95, 0.93, 0.87]],
];
const even = (colour: readonly [number, number, number]): Stops => [
  [0, colour],
  [1, colour],
];
/** Particles as they are mostly wanted. */
export const SWARMS: readonly Preset[] = [
  {
    name: 'embers',
    title: 'Embers',
    words: 'fire ; glowing bits ; campfire',
    help: 'Glowing bits that rise and go out.',
    values: {
      emitter: 'line',
      at: [0, 380],
      wide: 1100,
      before: 4,
      rate: 70,
      life: 4,
      grain: 13,
      speed: 170,
      spread: 40,
      wander: 50,
    },
  },
  {
    name: 'sparks',
    title: 'Sparks',
    words: 'grinder ; welding ; flying sparks ; explosion',
    help: 'Bright sparks that fly off and fall.',
    values: {
      rate: 160,
      life: 1.1,
      grain: 5,
      speed: 620,
      spread: 110,
      gravity: 900,
      drag: 0.5,
      wander: 0,
      drawn: 0.04,
      ends: 0.3,
      goes: 0.3,
    },
  },
  {
    name: 'snow',
    title: 'Snow',
    words: 'winter ; snowfall ; flakes',
    help: 'Flakes that sink and stray.',
    values: {
      ...{
        figure: 'flake',
        shines: false,
        emitter: 'line',
        at: [0, -400],
        wide: 1700,
        before: 14,
        rate: 40,
        life: 14,
        lifeVaries: 0,
      },
      ...{
        grain: 18,
        colours: even([0.95, 0.97, 1]),
        direction: 90,
        spread: 20,
        speed: 90,
        gravity: 0,
        drag: 0,
        wander: 40,
      },
      ...{ depth: 0.75, spin: 40, ends: 1, appears: 0.02, goes: 0.02, opacity: 0.9 },
    },
  },
  {
    name: 'rain',
    title: 'Rain',
    words: 'storm ; downpour ; wet',
    help: 'Drops drawn out by their fall.',
    values: {
      ...{ shines: false, emitter: 'line', at: [0, -420], wide: 1800, before: 2, rate: 420, life: 1.4, lifeVaries: 0 },
      ...{
        grain: 3.4,
        grainVaries: 0.3,
        colours: even([0.72, 0.8, 0.9]),
        direction: 96,
        spread: 2,
        speed: 1250,
        speedVaries: 0.1,
      },
      ...{ gravity: 0, drag: 0, wander: 0, depth: 0.6, drawn: 0.045, ends: 1, appears: 0, goes: 0.05, opacity: 0.75 },
    },
  },
  {
    name: 'leaves',
    title: 'Leaves',
    words: 'autumn ; fall ; foliage ; petals',
    help: 'Leaves that tumble down in the wind.',
    values: {
      ...{
        figure: 'leaf',
        shines: false,
        emitter: 'line',
        at: [-200, -420],
        wide: 1700,
        before: 8,
        rate: 9,
        life: 9,
        lifeVaries: 0.1,
      },
      ...{
        grain: 30,
        long: 1.7,
        direction: 90,
        spread: 40,
        speed: 90,
        gravity: 20,
        wind: 60,
        drag: 0.3,
        wander: 70,
        depth: 0.5,
      },
      ...{ spin: 120, flutter: 0.85, ends: 1, appears: 0.02, goes: 0.03, coloured: 'lot' },
      colours: [
        [0, [0.75, 0.26, 0.12]],
        [0.5, [0.86, 0.56, 0.2]],
        [1, [0.5, 0.42, 0.16]],
      ],
    },
  },
  {
    name: 'dust',
    title: 'Dust in light',
    words: 'motes ; floating specks ; sunbeam ; fairy dust',
    help: 'Specks that hang in the air and catch the light.',
    values: {
      ...{
        emitter: 'box',
        wide: 1400,
        high: 800,
        before: 10,
        rate: 22,
        life: 9,
        grain: 11,
        speed: 14,
        spread: 360,
        gravity: 0,
        drag: 0,
      },
      ...{ wander: 60, depth: 0.7, ends: 1, appears: 0.3, goes: 0.4, opacity: 0.85, colours: even([1, 0.93, 0.78]) },
    },
  },
  {
    name: 'confetti',
    title: 'Confetti',
    words: 'party ; celebration ; paper bits ; birthday',
    help: 'Coloured scraps thrown up all at once.',
    values: {
      ...{
        figure: 'scrap',
        shines: false,
        rate: 0,
        burst: 260,
        at: [0, 300],
        life: 5,
        grain: 18,
        long: 1.4,
        speed: 900,
        speedVaries: 0.7,
      },
      ...{ spread: 70, gravity: 520, drag: 1.1, wander: 40, spin: 400, flutter: 0.95, ends: 1, appears: 0, goes: 0.15 },
      ...{ coloured: 'lot', colours: paper },
    },
  },
  {
    name: 'scraps',
    title: 'Paper scraps',
    words: 'paper blowing ; torn paper ; newspaper in the wind',
    help: 'Scraps of paper that the wind blows past.',
    values: {
      ...{
        figure: 'scrap',
        shines: false,
        emitter: 'box',
        at: [-800, 0],
        wide: 200,
        high: 900,
        before: 3,
        rate: 26,
        life: 5,
        lifeVaries: 0.1,
      },
      ...{
        grain: 26,
        long: 1.3,
        direction: 0,
        spread: 30,
        speed: 420,
        gravity: 10,
        drag: 0,
        wander: 60,
        depth: 0.6,
        spin: 200,
      },
      ...{ flutter: 0.9, ends: 1, appears: 0.02, goes: 0.02, coloured: 'lot', colours: paper },
    },
  },
  {
    name: 'smoke',
    title: 'Smoke',
    words: 'chimney ; steam ; fumes ; fog machine',
    help: 'Soft puffs that rise, spread and thin out.',
    values: {
      ...{
        shines: false,
        at: [0, 260],
        rate: 26,
        life: 5,
        before: 5,
        grain: 60,
        ends: 5,
        speed: 90,
        spread: 24,
        gravity: -14,
        drag: 0.2,
      },
      ...{ wander: 26, opacity: 0.16, appears: 0.15, goes: 0.7, colours: even([0.75, 0.75, 0.77]) },
    },
  },
];
