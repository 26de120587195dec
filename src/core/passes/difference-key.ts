import { Picture } from '../picture/picture';
import { number } from '../params/number';
import { plate } from '../params/plate';
import { blurByBoxes } from '../masks/soften';
import { COMBINE, definePass } from './define';
import { EDGE_COLOUR, extendColour, FINISH, finishAt, finishReach, HAIR, RULED } from './finishing';
import { fitEdges } from './fit-edges';

/** Difference key: what is other than a clean plate stays; its edge is unmixed from the plate in linear light. */
export const differenceKey = definePass({
  type: 'difference-key',
  title: 'Difference key',
  group: 'cut out',
  fine: true,
  words: [
    'clean plate',
    'remove background',
    'static camera',
    'unmoving camera',
    'subtract background',
    'cut out',
    'matte',
  ],
  help: 'Cuts out what differs from a clean plate: a frame without the subject, or the median over a clip whose camera does not move. Relatives: Colour key with a clean plate.',
  params: {
    plate: plate({ label: 'Clean plate', help: 'The scene without the subject.' }),
    threshold: number({
      label: 'Threshold',
      unit: '%',
      default: 0.1,
      min: 0,
      max: 1,
      slider: [0, 0.3],
      help: 'Differences up to this are clear.',
    }),
    softness: number({
      label: 'Softness',
      unit: '%',
      default: 0.3,
      min: 0.001,
      max: 1,
      slider: [0.01, 0.6],
      help: 'Width of the ramp from clear to solid.',
    }),
    smooth: number({
      label: 'Calm noise',
      unit: 'px',
      default: 1,
      min: 0,
      max: 20,
      slider: [0, 6],
      help: 'Differences are averaged this far around, so that noise does not count.',
    }),
    fit: HAIR,
    ...FINISH,
    edgeColour: { ...EDGE_COLOUR, default: 3 },
    ...RULED,
    combine: COMBINE,
  },
  idle: (v) => v.plate === null,
  // a fitted edge goes by colours from all over the picture
  reach: (v) => (v.fit > 0 ? Infinity : Math.ceil(v.smooth) + finishReach(v, v.edgeColour)),
  run(picture, v, tools) {
    const { kernels, arena, scratch } = tools;
    const { w, h } = picture.rect;
    const clean = tools.plate(v.plate, picture.rect);
    if (!clean) return picture.retain();
    const plane = scratch(w * h * 4 + 12);
    kernels.differencePlane(picture.at, clean.at, w * h, plane);
    const around = Math.round(v.smooth);
    if (around >= 1) blurByBoxes(tools, plane, w, h, around, [0]);
    kernels.rampPlane(plane, w * h, v.threshold, v.softness);
    const hair = Math.round(v.fit);
    const matte =
      (hair > 0 && fitEdges({ matte: plane, offset: 0, gain: 1 }, picture, hair, tools, { plate: clean })?.matte) ||
      plane;
    finishAt(matte, picture, v, tools);
    const out = Picture.make(arena, picture.rect);
    kernels.unmixPlate(picture.at, clean.at, matte, out.at, out.pixels);
    if (v.edgeColour > 0) extendColour(out, v.edgeColour, tools);
    return out;
  },
});
