// What a camera sees while its shutter is open.
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import { Picture } from '../picture/picture';

/** How far something goes from one moment that is drawn to the next, in pixels, and how many moments there are at least and at most. */
const [APART, FEWEST, MOST] = [3, 4, 16];

/** How many moments are drawn of particles while the shutter is open. @param open seconds */
export function momentsIn(
  { speed, speedVaries, gravity, wind, life }: Record<'speed' | 'speedVaries' | 'gravity' | 'wind' | 'life', number>,
  open: number,
): number {
  if (open <= 0) return 1;
  const fastest = speed * (1 + speedVaries) + Math.abs(gravity) * life + Math.abs(wind);
  return Math.min(MOST, Math.max(FEWEST, Math.ceil((fastest * open) / APART)));
}

/** The mean of pictures as large as each other, drawn at shares −½…½ of the time that the shutter is open. @returns owned by the caller */
export function exposed(
  { kernels, arena }: { kernels: Kernels; arena: Arena },
  moments: number,
  draw: (share: number) => Picture,
): Picture {
  if (moments <= 1) return draw(0);
  let mean: Picture | null = null;
  for (let i = 0; i < moments; i++) {
    const now = draw((i + 0.5) / moments - 0.5);
    if (!mean) {
      mean = Picture.make(arena, now.rect);
      kernels.fill(mean.at, mean.pixels, 0, 0, 0, 0);
    }
    kernels.addScaled(now.at, mean.at, mean.pixels, 1 / moments);
    now.release();
  }
  return mean!;
}
