import { angle } from '../params/angle';
import { boolean } from '../params/boolean';
import { choice } from '../params/choice';
import { curve, type CurveParam, type CurvePoint } from '../params/curve';
import { masks } from '../params/masks';
import { number } from '../params/number';
import { pictures } from '../params/pictures';
import { point } from '../params/point';
import { ramp } from '../params/ramp';
import { seed } from '../params/seed';
import { size } from '../params/size';
import type { NumberParam } from '../params/number';
import { coverage, type CoveragePlan } from '../masks/coverage';
import { birthsOf, spotsOf, spotsOfPlane, type Spots } from './births';
import { defineSource, type SourceTools } from './define';
import { exposed, momentsIn } from './exposed';
import { drawnMasks, NOTHING_FETCHED } from './figure';
import { MOST_AT_ONCE, swarmAt, type Swarming } from './swarm';
import { swarmPicture } from './swarm-picture';

const [COME, MOVE, LOOK, LAND] = ['Where they come from', 'How they move', 'What they look like', 'Where they land'];
const LIFE = 'Along their life';
const SPRITE = { when: { choice: 'figure', is: 'sprite' } };
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

/** What is drawn by hand over a life, from when one comes to when it goes. */
const byHand = (label: string, help: string): CurveParam =>
  curve({ label: `${label} by hand`, help, over: 'life', heights: 'is', default: WHOLE, group: LIFE });
const WHOLE: readonly CurvePoint[] = [
  [0, 1],
  [1, 1],
];

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
        { value: 'sprite', label: 'picture of a layer' },
      ],
      help: 'What one of them looks like.',
    }),
    sprites: pictures({
      label: 'Layers',
      most: 8,
      none: 'none: nothing is drawn',
      stands: 'stands',
      help: 'Layers of this shot, with what their passes do, of which each has one by lot: clips, stills, titles, shapes, groups. Hide them in the shot itself.',
      ...SPRITE,
    }),
    stands: boolean({
      label: 'They stand still',
      default: false,
      help: 'Each shows the first frame of its layer, instead of the present one.',
      ...SPRITE,
    }),
    tinted: number({
      label: 'Coloured',
      unit: '%',
      default: 0,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much their pictures take on the colours below.',
      ...SPRITE,
    }),
    grain: px('As large as', 14, [0.2, 2000], [1, 120], 'From side to side, as they come.'),
    rate: plain(
      'A second',
      60,
      5000,
      [0, 400],
      `How many come in a second. No more than ${MOST_AT_ONCE} are there at once, and fewer of very large ones.`,
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
      options: ['point', 'line', 'box', 'ellipse', 'mask', 'layer'].map((value) => ({ value, label: value })),
      help: 'Where they come from. Masks of this layer, or another layer, let them come from wherever these cover.',
      group: COME,
    }),
    inside: masks({
      label: 'The masks',
      empty: 'all',
      help: 'The masks of this layer, drawn or painted, that they come from, as these are when the layer begins; all of them when none is chosen.',
      group: COME,
      when: { choice: 'emitter', is: 'mask' },
    }),
    from: pictures({
      label: 'The layer',
      most: 1,
      placed: true,
      at: 'middle',
      none: 'none: none come',
      help: 'The layer that they come from, as it lies in the shot in the middle of its time.',
      group: COME,
      when: { choice: 'emitter', is: 'layer' },
    }),
    at: point({
      label: 'Middle',
      default: [0, 0],
      help: 'The middle of where they come from. When it has keyframes or follows a track, each stays where it came.',
      group: COME,
      when: { choice: 'emitter', is: ['point', 'line', 'box', 'ellipse'] },
    }),
    wide: {
      ...px('Wide', 1280, [0, 32768], [0, 2560], 'How wide that is.', COME),
      when: { choice: 'emitter', is: ['line', 'box', 'ellipse'] },
    },
    high: {
      ...px('High', 400, [0, 32768], [0, 1440], 'How high that is.', COME),
      when: { choice: 'emitter', is: ['box', 'ellipse'] },
    },
    burst: plain('At once', 0, MOST_AT_ONCE, [0, 500], 'How many more come all together on the first frame.', COME),
    most: number({
      label: 'At most',
      unit: '',
      default: MOST_AT_ONCE,
      min: 1,
      max: MOST_AT_ONCE,
      slider: [1, 2000],
      help: 'No more than so many are there at once; of those that come by and by, some are left out all along.',
      group: COME,
    }),
    before: plain(
      'Begun before',
      3,
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
    gust: px('Gusts', 0, [0, 5000], [0, 200], 'How far gusts of air take them; those near each other together.', MOVE),
    gustWide: px('Gusts as wide as', 300, [10, 10_000], [40, 1200], 'From one gust to the next.', MOVE),
    lifeVaries: share('Life varies', 0.4, 'How differently long they last.', MOVE),
    speedVaries: share('Speed varies', 0.5, 'How differently fast they are.', MOVE),
    depth: share('Depth', 0, 'How much smaller and slower the far ones are.', MOVE),
    blurred: px(
      'Out of focus',
      0,
      [0, 400],
      [0, 40],
      'How far out of focus one is, where the whole depth lies between it and where it is sharp.',
      LOOK,
    ),
    sharpAt: share('Sharp at', 0.5, 'The depth at which they are sharp: 0 % the nearest, 100 % the farthest.', LOOK),
    meets: choice({
      label: 'At a line they',
      default: 'nothing',
      options: [
        { value: 'nothing', label: 'fly on' },
        { value: 'bounce', label: 'bounce' },
        { value: 'lie', label: 'stay lying' },
        { value: 'go', label: 'are gone' },
      ],
      help: 'What becomes of those that come down on a line: a floor, a deck, the water, or tilted a roof, a wall, the border of the picture.',
      group: LAND,
    }),
    floor: {
      ...px('The line', 250, [-32768, 32768], [-720, 720], 'How far it lies below the middle of the picture.', LAND),
      when: { choice: 'meets', is: ['bounce', 'lie', 'go'] },
    },
    tilt: angle({
      label: 'Tilted',
      default: 0,
      help: 'How the line is turned: at 90° those that go left meet it, at -90° those that go right, at 180° those that rise.',
      group: LAND,
      when: { choice: 'meets', is: ['bounce', 'lie', 'go'] },
    }),
    bounce: {
      ...share('Bounce', 0.45, 'How much of their speed they keep.', LAND),
      when: { choice: 'meets', is: 'bounce' },
    },
    opacity: share('Opacity', 1, 'How solid they are.', LOOK),
    grainVaries: share('Size varies', 0.5, 'How differently large they are.', LOOK),
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
    turned: number({
      label: 'Turned by lot',
      unit: '°',
      default: 180,
      min: 0,
      max: 180,
      slider: [0, 180],
      help: 'How far they are turned as they come, at most, to either side.',
      group: LOOK,
    }),
    along: boolean({
      label: 'Along their way',
      default: false,
      help: 'They point where they go, instead of turning.',
      group: LOOK,
    }),
    shutter: share(
      'Motion blur',
      0,
      'How much of a frame the shutter is open: each is seen along the way that it goes meanwhile. Takes as many times longer as they go far.',
      LOOK,
    ),
    flutter: share('Flutter', 0, 'How much of their breadth they lose as they show their edge.', LOOK),
    ends: share('Size at the end', 0.4, 'How large they are when they go, of what they were.', LIFE, 20),
    appears: share('Appears over', 0.05, 'Part of its life in which one fades in.', LIFE),
    goes: share('Goes over', 0.5, 'Part of its life in which one fades out.', LIFE),
    sized: byHand('Size', 'How large one is along its life, of what it is besides.'),
    faded: byHand('Opacity', 'How solid one is along its life, of what it is besides.'),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number, other particles.' }),
    size: size({ label: 'Size', default: [1280, 720], help: 'How large the picture is.' }),
  },
  timed: false,
  moment(v, when) {
    const open = v.shutter / when.perSecond;
    // a mask that moves would take those along that have come already
    const inside = v.emitter === 'mask' ? when.at('inside', 0) : null;
    return { seconds: when.seconds, open, inside, ...birthsOf(v, { ...when, seconds: when.seconds + open / 2 }) };
  },
  draw(v, tools) {
    const { seconds = 0, open = 0 } = v as unknown as { seconds?: number; open?: number };
    const places = { spots: spotsFor(v, tools), floor: [tools.size.w / 2, tools.size.h / 2 + v.floor] as const };
    // how a dot is turned is not seen
    const round = (v.figure === 'dot' || v.figure === 'disc') && v.long === 1 && !v.drawn && !v.flutter;
    const swarm = { ...(v as unknown as Swarming), ...places, ...(round && { turned: 0, spin: 0, along: false }) };
    const sprites = v.sprites.map(tools.picture).filter((sprite) => sprite !== null);
    return exposed(tools, momentsIn(swarm, open), (share) =>
      swarmPicture(tools, swarmAt(swarm, seconds + share * open), { ...v, sprites }),
    );
  },
});

/** Where they can come from, when that is what a layer or masks cover. */
function spotsFor(
  v: { emitter: string; from: readonly string[]; inside: CoveragePlan | null },
  tools: SourceTools,
): Spots | null {
  if (v.emitter === 'layer') {
    const layer = v.from[0] ? tools.picture(v.from[0]) : null;
    return layer && spotsOf(tools, layer);
  }
  if (v.emitter !== 'mask' || !v.inside) return null;
  const drawn = drawnMasks(v.inside);
  const { w, h } = tools.size;
  return drawn && spotsOfPlane(coverage(drawn, { x: 0, y: 0, w, h }, NOTHING_FETCHED, tools), w, h);
}
