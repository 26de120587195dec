// Air that moves: what is near each other is taken along together.
import { cosineOf, sineOf } from '../base/sine';

/** Where a place is taken, in shares of how far gusts reach. */
export type Gusts = (x: number, y: number, seconds: number, out: Float64Array) => void;

const WAVES = 6;
/** How much longer or shorter a wave is than what gusts are wide, and turns of it in a second. */
const [SHORTEST, LONGEST] = [0.7, 1.6];
const [SLOWEST, FASTEST] = [0.08, 0.3];
/** Numbers of a wave: turns for each pixel across and down, turns a second, where it begins, and which way it takes things. */
const WAVE = 6;

/**
 * A field of waves, each of which takes things along itself and not before itself, so that they do not gather anywhere.
 * @param wide pixels from one gust to the next @param lot a number 0…1 by lot for each question @returns on average as far as 1
 */
export function gustsOf(wide: number, lot: (question: number) => number): Gusts {
  const waves = new Float64Array(WAVES * WAVE);
  for (let k = 0; k < WAVES; k++) {
    const turn = (k + lot(4 * k)) / WAVES;
    const length = wide * (SHORTEST + (LONGEST - SHORTEST) * lot(4 * k + 1));
    const [c, s] = [cosineOf(turn), sineOf(turn)];
    const pace = SLOWEST + (FASTEST - SLOWEST) * lot(4 * k + 2);
    waves.set([c / length, s / length, pace, lot(4 * k + 3), -s, c], k * WAVE);
  }
  const share = Math.sqrt(2 / WAVES);
  return (x, y, seconds, out) => {
    let [across, down] = [0, 0];
    for (let at = 0; at < waves.length; at += WAVE) {
      const much = sineOf(waves[at]! * x + waves[at + 1]! * y + waves[at + 2]! * seconds + waves[at + 3]!);
      across += much * waves[at + 4]!;
      down += much * waves[at + 5]!;
    }
    out[0] = across * share;
    out[1] = down * share;
  };
}
