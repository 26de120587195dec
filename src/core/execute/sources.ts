// The pictures that layers begin with: drawn, fetched, of another shot, at full size and halved.
import { JackplaneError } from '../base/errors';
import { picturesIn } from '../plan/asked';
import type { LayerPlan, Size, SourcePlan } from '../plan/types';
import type { DrawnSource } from '../sources/define';
import { sourceOf } from '../sources/registry';
import type { Backend, DrawnPlan, Fetch, Held, StockPlan } from './backend';

/** What pictures are found by. */
interface Finder<P extends Held> {
  backend: Backend<P>;
  fetch: Fetch;
  /** a further picture of the plan by its key: a line without what is clear around something drawn, or a shot */
  further(key: string): Promise<P>;
  /** a line as far as it is not clear, and how large all of it is */
  line(key: string): Promise<P>;
  sizeOf(key: string): Size;
  /** a shot of the plan by its key */
  shot(key: string): Promise<P>;
}

/** Gives a picture up for what is made of it. @returns owned by the caller */
export function remade<P extends Held>(backend: Backend<P>, picture: P, make: (picture: P) => P): P {
  try {
    return backend.guarded(() => make(picture));
  } finally {
    picture.release();
  }
}

/** What a layer shows before its passes, owned by the caller. @throws JackplaneError unsupported for what another version knows; what fetching throws */
export async function sourcePicture<P extends Held>(layer: LayerPlan, finder: Finder<P>): Promise<P> {
  const { source } = layer;
  switch (source.kind) {
    case 'drawn':
      return drawn(source, layer, finder);
    case 'shot':
      return inner(source, finder);
    case 'finer':
      return finer(layer, source.key, finder);
    case 'stock':
      return moment(layer, source, finder);
    case 'below':
      throw new Error('an adjustment layer has no picture');
    case 'unknown':
      throw new JackplaneError(
        'unsupported',
        `“${layer.name}” shows something that this version does not know (${source.type}).`,
        'Update Jackplane and open it again.',
      );
  }
}

/** A line at full size, halved until it has the layer's size. */
async function finer<P extends Held>({ size }: LayerPlan, key: string, finder: Finder<P>): Promise<P> {
  const { backend } = finder;
  const line = await finder.line(key);
  const whole = remade(backend, line, (held) => backend.part(held, { x: 0, y: 0, ...finder.sizeOf(key) }));
  return remade(backend, whole, (held) => backend.halved(held, size));
}

/** Another shot at a moment. */
async function inner<P extends Held>(
  { key, next }: Extract<SourcePlan, { kind: 'shot' }>,
  { backend, shot }: Finder<P>,
): Promise<P> {
  const first = await shot(key);
  if (!next) return first;
  try {
    return remade(backend, await shot(next.key), (second) => backend.between(first, second, next.share, 'blend'));
  } finally {
    first.release();
  }
}

async function drawn<P extends Held>(
  source: DrawnPlan,
  { size }: LayerPlan,
  { backend, further }: Finder<P>,
): Promise<P> {
  const { values } = source;
  const declared = sourceOf(source.type) as DrawnSource;
  await declared.ready?.();
  if (declared.lines) await backend.prepareLines(declared.lines(values as never));
  const pictures = new Map<string, P>();
  try {
    for (const key of new Set(picturesIn(declared.params, values))) pictures.set(key, await further(key));
    return backend.guarded(() => backend.draw(source, size, (key) => pictures.get(key)));
  } finally {
    pictures.forEach((held) => held.release());
  }
}

/** A source at a moment: one of its frames, or what lies between two of them. */
async function moment<P extends Held>(
  { size }: LayerPlan,
  source: StockPlan,
  { backend, fetch }: Finder<P>,
): Promise<P> {
  const { next } = source;
  if (!next) {
    const fetched = await fetch(source);
    return backend.guarded(() => backend.upload(fetched, size));
  }
  const [now, later] = await Promise.all([fetch(source), fetch({ ...source, seconds: next.seconds })]);
  return backend.guarded(() => {
    const [first, second] = [backend.upload(now, size), backend.upload(later, size)];
    const out = backend.between(first, second, next.share, next.how);
    first.release();
    second.release();
    return out;
  });
}
