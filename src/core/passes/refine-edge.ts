import { Picture } from '../picture/picture';
import { definePass } from './define';
import { EDGE_COLOUR, extendColour, FINISH, finishAt, finishReach, RULED } from './finishing';

/** Works on the matte that a layer has got so far, whatever made it. */
export const refineEdge = definePass({
  type: 'refine-edge',
  title: 'Refine edge',
  group: 'cut out',
  fine: true,
  words: [
    'choke',
    'shrink matte',
    'grow',
    'feather',
    'fill holes',
    'despeckle',
    'edge colour',
    'matte clean-up',
    'fringe',
  ],
  help: 'Shrinks, grows, softens and cleans up what was cut out so far, and carries its colour into the edge. Relatives: the same dials in the keys.',
  params: { ...FINISH, edgeColour: EDGE_COLOUR, ...RULED },
  idle: (v) =>
    v.gamma === 1 &&
    v.shrink === 0 &&
    v.feather === 0 &&
    v.holes === 0 &&
    v.specks === 0 &&
    v.edgeColour === 0 &&
    !v.keep.masks.length &&
    !v.drop.masks.length,
  reach: (v) => finishReach(v, v.edgeColour),
  run(picture, v, tools) {
    const { kernels, arena, scratch } = tools;
    const { w, h } = picture.rect;
    const plane = scratch(w * h * 4 + 12);
    kernels.coveragePlane(picture.at, w * h, 0, 0, plane);
    finishAt(plane, picture, v, tools);
    const out = Picture.make(arena, picture.rect);
    kernels.coverBy(picture.at, plane, out.at, w * h);
    if (v.edgeColour > 0) extendColour(out, v.edgeColour, tools);
    return out;
  },
});
