// Fades at a layer's ends: of its picture, and of its sound.
import type { Draft } from 'immer';
import type { Value } from '../../base/value';
import type { Fade } from '../../time/drivers/fade';
import type { Edit } from '../edit';
import { layerIn, shotIn } from '../find';
import type { Layer, LayerId, Project, ShotId } from '../schema';
import { withDriver } from './values';

export type Fades = Pick<Fade, 'in' | 'out'>;

/** How many frames a layer fades in and out for. */
export function fadesOf({ opacity }: Pick<Layer, 'opacity'>): Fades {
  const found = opacity.drivers?.find((driver) => driver.type === 'fade') as Fade | undefined;
  return { in: found?.in ?? 0, out: found?.out ?? 0 };
}

/** Gives a layer's picture and sound these fades. */
export function writeFades(layer: Draft<Layer>, fades: Fades): void {
  const driver: Fade | null = fades.in || fades.out ? { type: 'fade', ...fades } : null;
  layer.opacity = withDriver(layer.opacity as Value<unknown>, 'fade', driver) as Draft<Value<number>>;
  layer.sound.gain = withDriver(layer.sound.gain as Value<unknown>, 'fade', driver) as Draft<Value<number>>;
}

/** @param frames 0 for none; at most what the other end leaves of the layer */
export function setFade(
  project: Project,
  at: { shot: ShotId; layer: LayerId },
  end: keyof Fades,
  frames: number,
): Edit {
  const { name } = layerIn(shotIn(project, at.shot), at.layer);
  return {
    name: `${frames > 0 ? '' : 'No '}fade ${end}: ${name}`.replace(/^f/, 'F'),
    apply: (draft) => {
      const layer = layerIn(shotIn(draft as Project, at.shot), at.layer) as Draft<Layer>;
      const now = fadesOf(layer);
      const room = layer.span.length - 1 - now[end === 'in' ? 'out' : 'in'];
      writeFades(layer, { ...now, [end]: Math.max(0, Math.min(room, Math.round(frames))) });
    },
  };
}
