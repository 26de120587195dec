// What a layer begins and ends with: a fade of its picture or a transition, and a fade of its sound along with it.
import { produce, type Draft } from 'immer';
import type { Fade } from '../../time/drivers/fade';
import type { Edit } from '../edit';
import { layerIn, shotIn } from '../find';
import type { Layer, LayerId, Project, ShotId } from '../schema';
import { firstValues } from '../../params/registry';
import { transitionOf } from '../../transitions/registry';
import { still, type Value } from '../../base/value';
import { withDriver } from './values';

interface At {
  shot: ShotId;
  layer: LayerId;
}
export type Fades = Pick<Fade, 'in' | 'out'>;

/** How many frames a layer takes to begin and to end. Its sound fades for so long, whatever its picture does. */
export function fadesOf({ sound }: Pick<Layer, 'sound'>): Fades {
  const found = sound.gain.drivers?.find((driver) => driver.type === 'fade') as Fade | undefined;
  return { in: found?.in ?? 0, out: found?.out ?? 0 };
}

/** Gives a layer's beginning and end these lengths: its sound fades, and its picture where it has no transition there. One without a length goes. */
export function writeFades(layer: Draft<Layer>, fades: Fades): void {
  const { ends } = layer;
  if (!fades.in) delete ends.start;
  if (!fades.out) delete ends.end;
  const driver = (of: Fades): Fade | null => (of.in || of.out ? { type: 'fade', ...of } : null);
  const seen = { in: ends.start ? 0 : fades.in, out: ends.end ? 0 : fades.out };
  layer.opacity = withDriver(layer.opacity as Value<unknown>, 'fade', driver(seen)) as Draft<Value<number>>;
  layer.sound.gain = withDriver(layer.sound.gain as Value<unknown>, 'fade', driver(fades)) as Draft<Value<number>>;
}

/** The layer's transition at an end; null for a fade. */
export const transitionAt = ({ ends }: Pick<Layer, 'ends'>, end: keyof Fades): Layer['ends']['start'] =>
  end === 'in' ? ends.start : ends.end;

/** What a layer begins or ends with. @param type of a transition; null for a fade @param frames its length where there is none yet */
export function setTransition(project: Project, at: At, end: keyof Fades, type: string | null, frames: number): Edit {
  const { name } = layerIn(shotIn(project, at.shot), at.layer);
  const declared = type ? transitionOf(type) : undefined;
  const title = declared?.title ?? 'Fade';
  return {
    name: `${title} ${end}: ${name}`,
    apply: (draft) => {
      const layer = layerIn(shotIn(draft as Project, at.shot), at.layer) as Draft<Layer>;
      const now = fadesOf(layer as Layer);
      const room = layer.span.length - 1 - now[end === 'in' ? 'out' : 'in'];
      const key = end === 'in' ? 'start' : 'end';
      if (declared) layer.ends[key] = { type: declared.type, values: firstValues(declared.params) };
      else delete layer.ends[key];
      writeFades(layer, { ...now, [end]: now[end] || Math.max(1, Math.min(room, Math.round(frames))) });
    },
  };
}

/** Sets one value of what a layer begins or ends with. */
export const setTransitionValue = (project: Project, at: At, end: keyof Fades, name: string, value: unknown): Edit => ({
  name: `${titleAt(layerIn(shotIn(project, at.shot), at.layer), end)}: ${paramAt(layerIn(shotIn(project, at.shot), at.layer), end, name)}`,
  apply: (draft) => {
    const declared = transitionAt(layerIn(shotIn(draft as Project, at.shot), at.layer), end);
    if (declared) declared.values[name] = still(value);
  },
});
/** What a layer's end is called. */
export const titleAt = (layer: Pick<Layer, 'ends'>, end: keyof Fades): string => {
  const { type } = transitionAt(layer, end) ?? {};
  return (type && (transitionOf(type)?.title ?? type)) || 'Fade';
};
const paramAt = (layer: Layer, end: keyof Fades, name: string): string =>
  transitionOf(transitionAt(layer, end)?.type ?? '')?.params[name]?.label.toLowerCase() ?? name;

/** @param frames 0 for none; at most what the other end leaves of the layer */
export function setFade(project: Project, at: At, end: keyof Fades, frames: number): Edit {
  const layer = layerIn(shotIn(project, at.shot), at.layer);
  const title = titleAt(layer, end);
  return {
    name: `${frames > 0 ? title : `No ${title.toLowerCase()}`} ${end}: ${layer.name}`,
    apply: (draft) => {
      const layer = layerIn(shotIn(draft as Project, at.shot), at.layer) as Draft<Layer>;
      const now = fadesOf(layer);
      const room = layer.span.length - 1 - now[end === 'in' ? 'out' : 'in'];
      writeFades(layer, { ...now, [end]: Math.max(0, Math.min(room, Math.round(frames))) });
    },
  };
}

/** The layer as it would look half way through what it would begin with; at its first frame half way through what it would end with. @param frame of layer time */
export const halfWay = (layer: Layer, type: string | null, frame: number): Layer =>
  produce(layer, (draft) => {
    const declared = type ? transitionOf(type) : undefined;
    const transition = declared && { type: declared.type, values: firstValues(declared.params) };
    const begins = frame > 0;
    draft.ends = transition ? { [begins ? 'start' : 'end']: transition } : {};
    const frames = 2 * (begins ? frame : Math.max(1, layer.span.length - 1 - frame));
    writeFades(draft as Draft<Layer>, begins ? { in: frames, out: 0 } : { in: 0, out: frames });
  });
