import {
  addLayer,
  newLayer,
  newSource,
  setFraming,
  setSourceValue,
  stockSource,
} from '../../core/document/edits/layers';
import { letArrive, type ArrivalWay } from '../../core/document/edits/arrive';
import { setTransition, type Fades } from '../../core/document/edits/ends';
import { addReadyMade, type ReadyMade } from '../../core/document/edits/ready-made';
import { freeName, trimEnd, trimStart } from '../../core/document/edits/time';
import { newMask, newShape, SHAPE_TITLES, type MaskId } from '../../core/document/mask';
import type { LayerId, Shot, Stock } from '../../core/document/schema';
import { spanOf, stopsOf, type FramingMove } from '../../core/place/framing';
import { SOURCES } from '../../core/sources/registry';
import type { Params } from '../../core/params/registry';
import { particles } from '../../core/sources/particles';
import type { SWARMS } from '../../core/sources/swarms';
import { isFreePath, shape } from '../../core/sources/shape';
import { title } from '../../core/sources/title';
import { framesIn } from '../../core/time/rate';
import { newId } from '../base/ids';
import { usePlayhead } from '../stores/playhead';
import { useViewing } from '../stores/viewing';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useMasking } from '../stores/masking';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';

/** Trims the chosen layer to the playhead; its end includes the frame that is showing. */
export function trimHere(side: 'start' | 'end'): void {
  const playhead = usePlayhead();
  const edits = useEdits();
  edits.editLayer((project, at) =>
    side === 'start' ? trimStart(project, at, playhead.frame) : trimEnd(project, at, playhead.frame + 1),
  );
}

/** How long a fade or a transition is that is asked for without saying how long, in seconds. */
const USUAL_FADE = 0.5;
/** The same in frames of a shot. */
export const usualFade = ({ rate }: Pick<Shot, 'rate'>): number =>
  Math.max(1, Math.round((rate.num / rate.den) * USUAL_FADE));

/** Lets the chosen layer begin or end with something, and opens its dials. @param type of a transition; null for a fade */
export function takeTransition(end: keyof Fades, type: string | null): void {
  const bench = useBench();
  const edits = useEdits();
  edits.editLayer((project, at) => setTransition(project, at, end, type, usualFade(bench.shot!)));
  bench.show(end);
}
/** Lets the chosen title arrive in one of the usual ways. */
export function letTitleArrive(way: ArrivalWay): void {
  const bench = useBench();
  const edits = useEdits();
  edits.editLayer((project, at) => letArrive(project, at, way, 2 * usualFade(bench.shot!)));
}

/** Moves over the chosen layer's picture from its beginning to its end. */
export function moveOver(move: FramingMove): void {
  const bench = useBench();
  const edits = useEdits();
  const { shot, size } = bench;
  if (!shot || !size) return;
  edits.editLayer((project, at) =>
    setFraming(project, at, stopsOf(move, size, { w: shot.width, h: shot.height }, spanOf(bench.layer!, shot))),
  );
  bench.show('place');
}

/** Puts stock on the stack as a layer. @param start shot frame @param index place in the stack, 0 = top */
export function stackStock(stock: Stock, start = 0, index = 0): void {
  const bench = useBench();
  const { shot } = bench;
  if (!shot) return;
  if (stock.kind === 'font') return setInFont(stock);
  const length =
    stock.facts.seconds === undefined ? Math.max(1, shot.length - start) : framesIn(stock.facts.seconds, shot.rate);
  const name = freeName(stock.name, shot.layers);
  const layer = newLayer(newId<LayerId>(), name, stockSource(stock.id), { start, length });
  useProject().edit(addLayer(shot.id, layer, stock.kind === 'sound' ? shot.layers.length : index));
  bench.choose(layer.id, stock.kind === 'sound' ? 'source' : 'place');
}

/** Sets the chosen title in a font of the stock; a new one where none is chosen. */
function setInFont(stock: Stock): void {
  const bench = useBench();
  const edits = useEdits();
  const font = { stock: stock.id };
  if (bench.layer?.source.type !== title.type || bench.layer.locked) return stackMade(title.type, { font });
  edits.editLayer((project, at) => setSourceValue(project, at, 'font', font));
  bench.show('source');
}

/** Sources that need nothing to begin with. */
export const MADE = SOURCES.filter((source) => 'draw' in source || source.found === 'below');

/** How much of the shot's width a new text may take. */
const TEXT_WIDE = 0.9;

/** Puts the layers of something ready made on the stack, and chooses the one with its text. */
export function stackReadyMade(ready: ReadyMade): void {
  const bench = useBench();
  const viewing = useViewing();
  const store = useProject();
  const { shot } = bench;
  if (!shot) return;
  useSelection().choosingText(() => store.edit(addReadyMade(store.current(), shot.id, ready, newId)));
  viewing.typeText();
}

/** Puts particles on the stack as they are mostly wanted, in the measure of the shot. */
export function stackSwarm({ title, values }: (typeof SWARMS)[number]): void {
  const { shot } = useBench();
  const k = (shot?.height ?? 720) / 720;
  const measured = Object.entries(values).map(([name, value]) => {
    const param = (particles.params as Params)[name]!;
    if (param.kind === 'number' && param.unit === 'px') return [name, (value as number) * k];
    return [name, param.kind === 'point' ? (value as [number, number]).map((v) => v * k) : value];
  });
  stackMade(particles.type, Object.fromEntries(measured), title.toLowerCase());
}

/** Puts a shape on the stack that is to be drawn point by point. */
export const stackFreePath = (): void => stackMade(shape.type, { form: 'path' }, 'drawing');

/** Puts a made layer on the stack, the size of the shot. @param own values of its source in place of those that a new one begins with */
export function stackMade(type: string, own: Readonly<Record<string, unknown>> = {}, called?: string): void {
  const bench = useBench();
  const viewing = useViewing();
  const { shot } = bench;
  const declared = MADE.find((source) => source.type === type);
  if (!shot || !declared) return;
  const size = 'size' in declared.params ? { size: [shot.width, shot.height] } : {};
  // text goes on in the next row before it runs out of the shot
  const wrap = 'wrap' in declared.params ? { wrap: Math.round(shot.width * TEXT_WIDE) } : {};
  const name = freeName(called ?? declared.title.toLowerCase(), shot.layers);
  const layer = newLayer(newId<LayerId>(), name, newSource(type, { ...size, ...wrap, ...own }), {
    start: 0,
    length: shot.length,
  });
  const free = isFreePath(layer.source);
  if (free)
    layer.masks = [newMask(newId<MaskId>(), SHAPE_TITLES.path, newShape('path', { w: shot.width, h: shot.height }))];
  useProject().edit(addLayer(shot.id, layer));
  bench.choose(layer.id, 'source');
  viewing.typeText();
  if (free) useMasking().draw(layer.masks[0]!.id);
}
