// A layer's picture comes into its shot: placed, taken through the passes after Place, mixed with what lies below.
import { BLEND_MODES } from '../../../picture/blend';
import { Picture } from '../../../picture/picture';
import { blendRows, copyOf, partOf } from '../../../picture/rows';
import { grow, intersect, isEmpty, type Rect } from '../../../picture/rect';
import { stepOf } from '../../../transitions/registry';
import { reachAfterPlace } from '../../../plan/parts';
import type { LayerPlan } from '../../../plan/types';
import { backdrop, cutBy, placed, placedCoverage, plainShift } from './composite';
import type { Ground, MatteWay } from '../../backend';
import { filled } from '../../filled';
import { layerSpace, mixed, runPasses, single, type Rig as Tools, type Space } from './passes';

/** Draws a layer's processed picture into the shot, in place. */
export function drawLayer(
  tools: Tools,
  under: Picture,
  layer: LayerPlan,
  picture: Picture,
  ground: Ground<Picture>,
): void {
  const { shot, linear, matte } = ground;
  if (isEmpty(picture.rect) || layer.opacity <= 0) return;
  const mode = BLEND_MODES.indexOf(layer.blend);
  const shift = plainShift(layer, linear);
  tools.arena.guarded(() => {
    if (shift) {
      const { rect } = picture;
      return blendRows(tools, under, picture, { ...rect, x: rect.x + shift[0], y: rect.y + shift[1] }, mode);
    }
    // never further than the shot is large, however far a pass may look
    const reach = Math.min(Math.max(shot.w, shot.h), reachAfterPlace(layer.after));
    const around = grow(under.rect, reach);
    const room = filled(layer, layer.passes, layer.after, picture.rect);
    const whole = room ? partOf(tools, picture, room) : picture;
    let lying = placed(tools, layer, whole, matte ? intersect(around, { x: 0, y: 0, ...shot }) : around);
    if (whole !== picture) whole.release();
    if (!lying) return;
    if (matte) cutBy(tools, lying, matte.at, shot.w);
    lying = afterPlace(tools, lying, layer, under, ground);
    blendRows(tools, under, lying, lying.rect, mode);
    lying.release();
  });
}

/** Takes a placed picture through the passes that work after Place. @param picture display-encoded, given up @returns in the light of the shot, owned by the caller */
function afterPlace(
  tools: Tools,
  picture: Picture,
  layer: LayerPlan,
  under: Picture,
  ground: Ground<Picture>,
): Picture {
  const { shot: size, linear } = ground;
  const turn = (to: boolean) => {
    if (to === lit) return;
    if (to) tools.kernels.toLinearSpan(picture.at, picture.pixels);
    else tools.kernels.toDisplaySpan(picture.at, picture.pixels);
    lit = to;
  };
  let lit = false;
  for (const pass of layer.after) {
    if (stepOf(pass.type)!.idle?.(pass.values as never)) continue;
    turn(linear && stepOf(pass.type)!.light === 'shot');
    const space: Space = {
      size,
      coverage: (plan, rect) => {
        const own = (part: Rect) => tools.masks.plane(plan, part);
        return pass.amount === undefined ? placedCoverage(tools, layer, own, rect) : own(rect);
      },
      below: (rect) => lightOf(tools, partOf(tools, under, rect), linear, lit),
      moment: (key) => ground.moments.get(key),
    };
    const done = single(tools, space, pass, picture);
    picture = mixed(tools, picture, done, pass.amount ?? 1);
  }
  turn(linear);
  return picture;
}

/** A picture in the other light, in place. */
function lightOf({ kernels }: Tools, picture: Picture, from: boolean, to: boolean): Picture {
  if (from && !to) kernels.toDisplaySpan(picture.at, picture.pixels);
  if (!from && to) kernels.toLinearSpan(picture.at, picture.pixels);
  return picture;
}

/** Takes what lies below an adjustment layer through its passes, in place; as strongly as its opacity, masks and matte say. */
export function adjustBelow(tools: Tools, under: Picture, layer: LayerPlan, ground: Ground<Picture>): void {
  const { shot, linear, matte } = ground;
  const { rect } = under;
  const space: Space = {
    ...layerSpace(tools, shot),
    below: (part) => partOf(tools, under, part),
    moment: (key) => ground.moments.get(key),
  };
  tools.arena.guarded(() => {
    const before = copyOf(tools, under);
    if (linear) tools.kernels.toDisplaySpan(before.at, before.pixels);
    const done = runPasses(tools, space, layer.passes, before, 'none');
    const after = partOf(tools, done, rect);
    done.release();
    if (linear) tools.kernels.toLinearSpan(after.at, after.pixels);
    const blended = layer.blend === 'normal' ? after : copyOf(tools, under);
    if (blended !== after) blendRows(tools, blended, after, rect, BLEND_MODES.indexOf(layer.blend));
    tools.arena.scratch(under.pixels * 4 + 16, (at) => {
      tools.kernels.fillPlane(at, under.pixels, layer.opacity);
      for (const plan of layer.cover) {
        const cover = tools.masks.plane(plan, rect);
        tools.arena.scratch(cover.byteLength, (held) => {
          tools.arena.floats(held, cover.length).set(cover);
          tools.kernels.timesPlane(at, held, under.pixels);
        });
      }
      for (let y = 0; matte && y < rect.h; y++)
        tools.kernels.timesPlane(at + y * rect.w * 4, matte.at + ((rect.y + y) * shot.w + rect.x) * 4, rect.w);
      tools.kernels.lerpByPlane(under.at, blended.at, at, under.at, under.pixels);
    });
    if (blended !== after) blended.release();
    after.release();
  });
}

/** What a layer covers of its shot: floats, one for each of the shot's pixels, in the memory of a picture owned by the caller. */
export function matteOf(
  tools: Tools,
  layer: LayerPlan,
  picture: Picture,
  { by, invert }: MatteWay,
  ground: Ground<Picture>,
): Picture {
  const drawn = backdrop(tools, { x: 0, y: 0, ...ground.shot }, null);
  drawLayer(tools, drawn, { ...layer, blend: 'normal' }, picture, ground);
  const plane = Picture.make(tools.arena, { x: 0, y: 0, w: Math.ceil(drawn.pixels / 4) + 1, h: 1 });
  tools.kernels.coveragePlane(drawn.at, drawn.pixels, by === 'brightness' ? 1 : 0, invert ? 1 : 0, plane.at);
  drawn.release();
  return plane;
}
