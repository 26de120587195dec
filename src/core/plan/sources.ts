// What layers begin with, as plain data: a frame of stock, or what is drawn by its values.
import type { Value } from '../base/value';
import type { Layer, Shot, Stock } from '../document/schema';
import type { ResolveTools } from '../params/define';
import type { Params } from '../params/registry';
import type { DrawnSource, When } from '../sources/define';
import type { Moment } from '../time/moment';
import { frameAt, secondsAt, STAMP_ROUNDING } from '../time/rate';
import { sourceFrameAt } from '../time/speed';
import { resolveTools, valuesOf } from './passes';
import type { Size, SourcePlan } from './types';

/** What a source's picture depends on. */
export const sourceName = (source: SourcePlan): unknown =>
  source.kind === 'stock' ? [source.stock, source.file, source.seconds, source.next] : source;

/** Something that is drawn, with its values at the moment. @param picture plans those of other layers */
export function planDrawn(
  moment: Moment,
  declared: DrawnSource,
  size: Size,
  picture: ResolveTools['picture'],
): SourcePlan {
  const { params, type } = declared;
  const values = valuesOf(params, moment.layer.source.values, resolveTools(moment, size, picture));
  const now = declared.moment?.(values as never, whenOf(moment, params, size));
  return { kind: 'drawn', type, values: { ...values, ...now } };
}

/** The time of a source's values, and how they are found at other times. */
function whenOf(moment: Moment, params: Params, size: Size): When<string> {
  const { layer, shot, frame } = moment;
  const moving = (value: Value<unknown> | undefined) => !!value && ('keys' in value || !!value.drivers?.length);
  return {
    seconds: secondsAt(frame, shot.rate),
    perSecond: shot.rate.num / shot.rate.den,
    moves: (name) => moving(layer.source.values[name] as Value<unknown>),
    at: (name, there) => {
      const one = { [name]: params[name]! };
      return valuesOf(one, layer.source.values, resolveTools({ ...moment, frame: there }, size))[name];
    },
  };
}

/** The frame of stock that is shown, or the two between which the moment lies. */
export function planStock({ shot, layer, frame }: Moment, item: Stock): SourcePlan {
  const base = {
    kind: 'stock' as const,
    stock: item.id,
    name: item.name,
    file: `${item.file} ${item.facts.bytes}`,
  };
  if (item.kind === 'image') return { ...base, seconds: STAMP_ROUNDING };
  const rate = item.facts.rate && item.facts.rate !== 'variable' ? item.facts.rate : shot.rate;
  const last = Math.max(0, (item.facts.seconds ?? Infinity) - secondsAt(1, rate));
  const seconds = Math.min(last, Math.max(0, sourceSeconds(shot, layer, frame)));
  const { between } = layer.time;
  const first = frameAt(seconds, rate);
  const share = (seconds * rate.num) / rate.den - first;
  if (between === 'nearest' || share < 0.001 || seconds >= last) return { ...base, seconds: seconds + STAMP_ROUNDING };
  const next = { seconds: secondsAt(first + 1, rate) + STAMP_ROUNDING, share, how: between };
  return { ...base, seconds: secondsAt(first, rate) + STAMP_ROUNDING, next };
}

/** Source time in seconds at a layer frame. */
export function sourceSeconds(shot: Shot, layer: Layer, local: number): number {
  return secondsAt(sourceFrameAt(layer.time, local), shot.rate);
}
