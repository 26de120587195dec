import { toLinear } from '../picture/light';
import { Picture } from '../picture/picture';
import { definePass, number, samples, type Colour, type PassTools } from './define';

const MOST = 8;
const TILE = 32;
/** How flat the luma may be before it stops guiding. */
const EPS = 1e-4;

/** The channel that a screen colour is strongest in, and by how much it exceeds the others (linear light). */
export function screenOf(colour: Colour): { channel: number; linear: [number, number, number]; difference: number } {
  const linear = colour.map(toLinear) as [number, number, number];
  const channel = linear.indexOf(Math.max(...linear));
  const others = linear.filter((_, i) => i !== channel);
  return { channel, linear, difference: linear[channel]! - Math.max(...others) };
}

/**
 * Colour key. The matte comes from colour, then its edge is made to follow the brightness, which coded video keeps at full
 * size while it halves the colour. Unmixes each pixel in linear light into foreground and screen, C = αF + (1−α)S, with α from the colour
 * difference against the picked samples; gives the matte and the foreground colour without the screen's light in it.
 * Source: Vlahos' colour-difference key; He et al. 2010 for the edge; Smith & Blinn 1996.
 */
export const colourKey = definePass({
  type: 'colour-key',
  title: 'Colour key',
  group: 'cut out',
  words: ['green screen', 'blue screen', 'chroma key', 'remove green background', 'remove background', 'cut out', 'spill', 'matte'],
  help: 'Makes a coloured screen clear and takes its light out of the edges. Pick the screen on the picture. Relatives: Crop for the parts the screen does not reach.',
  params: {
    screen: samples({ label: 'Screen', default: [], most: MOST, help: 'Colours picked from the screen. Pick on the picture; drag to average an area, Shift to add one more.' }),
    tolerance: number({ label: 'Tolerance', unit: '%', default: 0.2, min: 0, max: 0.95, slider: [0, 0.6], help: 'How far from the picked colour still counts as screen.' }),
    softness: number({ label: 'Softness', unit: '%', default: 0.65, min: 0.01, max: 2, slider: [0.01, 1.2], help: 'Width of the ramp from clear to solid.' }),
    clipBlack: number({ label: 'Clip black', unit: '%', default: 0, min: 0, max: 0.99, slider: [0, 0.6], help: 'Matte values below this become clear.' }),
    clipWhite: number({ label: 'Clip white', unit: '%', default: 1, min: 0.01, max: 1, slider: [0.4, 1], help: 'Matte values above this become solid.' }),
    guide: number({ label: 'Edge detail', unit: 'px', default: 2, min: 0, max: 8, slider: [0, 8], help: 'How far around a pixel the brightness guides the edge of the matte. 0 leaves the edge as the colour alone gives it.' }),
    spill: number({ label: 'Spill', unit: '%', default: 1, min: 0, max: 1, slider: [0, 1], help: 'How much of the screen colour reflected onto the subject is taken out.' }),
  },
  idle: (v) => v.screen.length === 0,
  reach: (v) => 2 * guideRadius(v.guide),
  run(picture, v, { kernels, arena, scratch }) {
    const { w, h } = picture.rect;
    const params = writeParams(v, arena, scratch);
    const r = guideRadius(v.guide);
    const plane = w * h * 4 + 12; // the kernels work on four pixels at a time
    const alpha = scratch(plane);
    const luma = scratch(plane);
    kernels.keyAlpha(picture.at, w * h, alpha, luma, params);
    const refined = r ? scratch(plane) : alpha;
    if (r) {
      const block = scratch(2 * (TILE + 4 * r) ** 2 * 16);
      for (let y = 0; y < h; y += TILE) {
        for (let x = 0; x < w; x += TILE) kernels.guideTile(alpha, luma, refined, w, h, x, y, TILE, r, EPS, block);
      }
    }
    const out = Picture.make(arena, picture.rect);
    kernels.keyUnmix(picture.at, out.at, w * h, refined, params);
    return out;
  },
});

const guideRadius = (guide: number): number => Math.min(8, Math.round(guide));

interface KeyValues {
  screen: readonly Colour[];
  tolerance: number;
  softness: number;
  clipBlack: number;
  clipWhite: number;
  spill: number;
}

/** The kernels' parameters, laid out as src/kernels/key.ts says. */
function writeParams(v: KeyValues, arena: PassTools['arena'], scratch: PassTools['scratch']): number {
  const screens = v.screen.map(screenOf);
  const at = scratch((8 + 4 * MOST) * 4);
  const params = arena.floats(at, 8 + 4 * MOST);
  const clipWhite = Math.max(v.clipWhite, v.clipBlack + 0.01);
  params.set([screens.length, screens[0]!.channel, v.tolerance, 1 / v.softness, v.clipBlack, 1 / (clipWhite - v.clipBlack), v.spill, 0]);
  screens.forEach(({ linear, difference }, i) => params.set([...linear, 1 / Math.max(difference, 0.004)], 8 + 4 * i));
  return at;
}
