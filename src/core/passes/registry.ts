import { adjust } from './grade/adjust';
import { blur } from './blur';
import { brightnessKey } from './brightness-key';
import { colourKey } from './colour-key';
import { toneCurves } from './grade/tone-curves';
import { differenceKey } from './difference-key';
import { refineEdge } from './refine-edge';
import { balance } from './grade/balance';
import { cdl } from './grade/cdl';
import { colour } from './grade/colour';
import { colourRange } from './grade/colour-range';
import { hueCurves } from './grade/hue-curves';
import { colourTable } from './grade/table';
import { tintByBrightness } from './grade/tint';
import { tone } from './grade/tone';
import { vignette } from './grade/vignette';
import { wheels } from './grade/wheels';
import { decodeLog } from './grade/decode-log';
import { crop } from './crop';
import { ghosts } from './ghosts';
import { glow } from './glow';
import { grain } from './grain';
import { hueKey } from './hue-key';
import { echo } from './echo';
import { backing } from './backing';
import { castShadow } from './cast-shadow';
import { displace } from './displace';
import { dropShadow } from './drop-shadow';
import { lightRays } from './light-rays';
import { lightWrap } from './light-wrap';
import { outline } from './outline';
import { mask } from './mask';
import { movingBlur } from './moving-blur';
import { pane } from './pane';
import { cornerPin } from './corner-pin';
import { sharpen } from './sharpen';
import { shake } from './shake';
import { streaks } from './streaks';
import { steady } from './steady';
import { straighten } from './straighten';
import { turbulence } from './turbulence';
import { trail } from './trail';
import { bulge } from './bulge';
import { twirl } from './twirl';
import { ripple } from './ripple';
import { lens } from './lens';
import { kaleidoscope } from './kaleidoscope';
import { repeat } from './repeat';
import { fringes } from './fringes';
import { mosaic } from './mosaic';
import { posterise } from './posterise';
import { scanLines } from './scan-lines';
import { halftone } from './halftone';
import { defocus } from './defocus';
import { focusBand } from './focus-band';
import { flicker } from './flicker';
import { lightLeak } from './light-leak';
import { tape } from './tape';
import { dust } from './dust';
import { drawnEdges } from './drawn-edges';
import { scatter } from './scatter';
import { hold } from './hold';
import { shuffle } from './shuffle';
import { freeze } from './freeze';
import { timeSweep } from './time-sweep';
import { median } from './median';
import type { Params } from '../params/registry';
import type { AnyPass } from './define';

/** Every pass there is, in the order in which search lists them. */
export const PASSES: readonly AnyPass[] = [
  colourKey,
  brightnessKey,
  differenceKey,
  hueKey,
  refineEdge,
  lightWrap,
  outline,
  dropShadow,
  castShadow,
  mask,
  crop,
  backing,
  pane,
  adjust,
  decodeLog,
  balance,
  tone,
  toneCurves,
  wheels,
  colour,
  hueCurves,
  colourRange,
  tintByBrightness,
  cdl,
  colourTable,
  vignette,
  glow,
  streaks,
  lightRays,
  lightLeak,
  flicker,
  blur,
  defocus,
  focusBand,
  movingBlur,
  sharpen,
  grain,
  mosaic,
  posterise,
  halftone,
  scanLines,
  tape,
  dust,
  drawnEdges,
  steady,
  straighten,
  cornerPin,
  shake,
  turbulence,
  ripple,
  twirl,
  bulge,
  lens,
  fringes,
  kaleidoscope,
  repeat,
  scatter,
  echo,
  trail,
  hold,
  shuffle,
  freeze,
  timeSweep,
  median,
  displace,
  ghosts,
];

/** What is chosen to be put in: a pass as it begins, or for one of its further uses. */
export interface Offered {
  title: string;
  words: readonly string[];
  pass: AnyPass;
  /** other than those that it begins with */
  values?: Readonly<Record<string, unknown>>;
}
export const OFFERED: readonly Offered[] = PASSES.flatMap((pass) => [
  { title: pass.title, words: pass.words, pass },
  ...(pass.uses ?? []).map(({ title, words, values }) => ({ title, words, values, pass })),
]);

const byType = new Map(PASSES.map((pass) => [pass.type, pass]));

/** @returns the declaration, or undefined for a type this version does not know */
export function passOf(type: string): AnyPass | undefined {
  return byType.get(type);
}
/** The parameters that are declared for a type; none for one that this version does not know. */
export const paramsOf = (type: string): Params => byType.get(type)?.params ?? {};
/** What a pass is called; one that this version does not know by its type. */
export const titleOf = (type: string): string => byType.get(type)?.title ?? `unknown pass (${type})`;
