// The pictures that layers begin with: drawn, fetched, of another shot, at full size and halved; and what stands in for one.
import { between } from '../analysis/flow';
import { JackplaneError } from '../base/errors';
import { pictureOf, type FetchedPicture } from '../picture/fetched';
import { Picture } from '../picture/picture';
import { intersect, sameRect, type Rect } from '../picture/rect';
import { partOf } from '../picture/rows';
import { isIdle } from '../plan/passes';
import type { LayerPlan, PassPlan, Size, SourcePlan } from '../plan/types';
import type { DrawnSource } from '../sources/define';
import { sourceOf } from '../sources/registry';
import { stepOf } from '../transitions/registry';
import { picturesIn } from './masks';
import type { Bench } from './passes';

export type StockPlan = Extract<SourcePlan, { kind: 'stock' }>;
export type Fetch = (source: StockPlan) => Promise<FetchedPicture>;

/** What pictures are found by. */
interface Finder extends Pick<Bench, 'kernels' | 'arena' | 'masks'> {
  fetch: Fetch;
  /** a further picture of the plan by its key: a line without what is clear around something drawn, or a shot */
  further(key: string): Promise<Picture>;
  /** a line as far as it is not clear, and how large all of it is */
  line(key: string): Promise<Picture>;
  sizeOf(key: string): Size;
  /** a shot of the plan by its key */
  shot(key: string): Promise<Picture>;
}

/** A part of a picture, owned by the caller. @param picture given up */
export function cutOut(tools: Pick<Bench, 'kernels' | 'arena'>, picture: Picture, rect: Rect): Picture {
  try {
    return partOf(tools, picture, rect);
  } finally {
    picture.release();
  }
}

/** What a layer shows before its passes, owned by the caller. @throws JackplaneError unsupported for what another version knows; what fetching throws */
export async function sourcePicture(layer: LayerPlan, finder: Finder): Promise<Picture> {
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
async function finer({ size }: LayerPlan, key: string, finder: Finder): Promise<Picture> {
  const { kernels, arena } = finder;
  let picture = await finder.line(key);
  return arena.guarded(() => {
    picture = cutOut(finder, picture, { x: 0, y: 0, ...finder.sizeOf(key) });
    while (picture.rect.w > size.w) {
      const { w, h } = picture.rect;
      const smaller = Picture.make(arena, { x: 0, y: 0, w: Math.ceil(w / 2), h: Math.ceil(h / 2) });
      kernels.halve(picture.at, w, h, smaller.at);
      picture.release();
      picture = smaller;
    }
    return picture;
  });
}

/** Another shot at a moment. */
async function inner({ key, next }: Extract<SourcePlan, { kind: 'shot' }>, finder: Finder): Promise<Picture> {
  const first = await finder.shot(key);
  if (!next) return first;
  const second = await finder.shot(next.key).catch((error: unknown) => {
    first.release();
    throw error;
  });
  const out = Picture.make(finder.arena, first.rect);
  finder.kernels.lerpSpan(first.at, second.at, out.at, out.pixels, next.share);
  first.release();
  second.release();
  return out;
}

async function drawn(
  { type, values }: Extract<SourcePlan, { kind: 'drawn' }>,
  { size }: LayerPlan,
  { kernels, arena, masks, further }: Finder,
): Promise<Picture> {
  const declared = sourceOf(type) as DrawnSource;
  await declared.ready?.();
  if (declared.lines) await masks.prepareLines(declared.lines(values as never));
  const line = masks.line.bind(masks);
  const pictures = new Map<string, Picture>();
  try {
    for (const key of new Set(picturesIn(declared.params, values))) pictures.set(key, await further(key));
    const picture = (key: string): Picture | null => pictures.get(key) ?? null;
    return arena.guarded(() => declared.draw(values as never, { kernels, arena, size, line, picture }));
  } finally {
    pictures.forEach((held) => held.release());
  }
}

/** A source at a moment: one of its frames, or what lies between two of them. */
async function moment(layer: LayerPlan, source: StockPlan, finder: Finder): Promise<Picture> {
  const { kernels, arena } = finder;
  const { next } = source;
  const widened = (fetched: FetchedPicture): Picture =>
    arena.guarded(() => pictureOf(finder, fetched, Math.round(fetched.width / layer.size.w) || 1));
  if (!next) return widened(await finder.fetch(source));
  const fetched = await Promise.all([finder.fetch(source), finder.fetch({ ...source, seconds: next.seconds })]);
  return arena.guarded(() => {
    const [a, b] = fetched.map(widened) as [Picture, Picture];
    const out = next.how === 'flow' ? between(finder, a, b, next.share) : Picture.make(arena, a.rect);
    if (next.how === 'blend') kernels.lerpSpan(a.at, b.at, out.at, out.pixels, next.share);
    a.release();
    b.release();
    return out;
  });
}

const works = (pass: PassPlan): boolean => 'run' in stepOf(pass.type)! && !isIdle(pass);
/**
 * A layer's picture for passes that work on what is around pixels, too: with its clear parts, which a drawn one leaves out.
 * @param before passes that it came through @param next those that follow; when none of them looks around, it is the picture as it is
 * @returns the picture, or another one that the caller owns too
 */
export function filled(
  tools: Pick<Bench, 'kernels' | 'arena'>,
  { source, size, part }: LayerPlan,
  before: readonly PassPlan[],
  next: readonly PassPlan[] | 'all',
  picture: Picture,
): Picture {
  const kept = source.kind !== 'drawn' || part || before.some(works) || (next !== 'all' && !next.some(works));
  if (kept) return picture;
  const rect = before.reduce<Rect>(
    (now, pass) => {
      const declared = stepOf(pass.type)!;
      const cover =
        'prepare' in declared && !isIdle(pass) ? declared.cover?.(now, pass.values as never, size) : undefined;
      return cover ? intersect(now, cover) : now;
    },
    { x: 0, y: 0, ...size },
  );
  return sameRect(rect, picture.rect) ? picture : partOf(tools, picture, rect);
}

/** What is seen of a picture, from its top left; a clear one stays as it is. @param picture given up @returns owned by the caller */
export function trimmed(tools: Pick<Bench, 'kernels' | 'arena'>, picture: Picture): Picture {
  const { kernels, arena } = tools;
  const { x, y, w, h } = picture.rect;
  const [left, right, top, bottom] = arena.scratch(16, (at) => {
    kernels.seenBox(picture.at, w, h, at);
    return [...new Int32Array(arena.bytes(at, 16).slice().buffer)] as [number, number, number, number];
  });
  if (right < left) return picture;
  return cutOut(tools, picture, { x: x + left, y: y + top, w: right - left + 1, h: bottom - top + 1 });
}

/** Slanted stripes, so that missing media cannot be taken for a picture. */
export function placeholder({ arena }: Pick<Bench, 'arena'>, size: Size): Picture {
  const picture = Picture.make(arena, { x: 0, y: 0, ...size });
  const { w, h } = picture.rect;
  const floats = arena.floats(picture.at, w * h * 4);
  const stripe = Math.max(8, Math.round(h / 12));
  for (let y = 0, i = 0; y < h; y++) {
    for (let x = 0; x < w; x++, i += 4) {
      const v = Math.floor((x + y) / stripe) % 2 ? 0.3 : 0.42;
      floats.set([v, v, v, 1], i);
    }
  }
  return picture;
}
