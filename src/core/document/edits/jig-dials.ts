// The few dials of a jig that are worth turning before it is put in.
import { still, type Value } from '../../base/value';
import { counts } from '../../params/define';
import type { Params } from '../../params/registry';
import { passOf } from '../../passes/registry';
import { sourceOf } from '../../sources/registry';
import { transitionOf } from '../../transitions/registry';
import { MOST_JIG_DIALS, type DialledJig, type JigDial, type LayerId, type LayerJig, type PassId } from '../schema';

/** A part of a jig that has values: a layer's source, a pass, a transition. */
export interface Holder {
  /** one that no other part of the jig has */
  key: string;
  title: string;
  params: Params;
  values: Readonly<Record<string, Value<unknown>>>;
}
const ENDS = ['start', 'end'] as const;

export const holdersOf = (jig: DialledJig): Holder[] =>
  jig.kind === 'layers'
    ? jig.layers.map(({ id, name, source: { type, values } }) => ({
        key: id,
        title: name,
        params: sourceOf(type)?.params ?? {},
        values,
      }))
    : [
        ...jig.layer.passes.map(({ id, type, values }) => ({
          key: id as string,
          title: passOf(type)?.title ?? type,
          params: passOf(type)?.params ?? {},
          values,
        })),
        ...ENDS.flatMap((end) => {
          const transition = jig.layer.ends[end];
          if (!transition) return [];
          const { type, values } = transition;
          const title = `${transitionOf(type)?.title ?? type} ${end === 'start' ? 'in' : 'out'}`;
          return [{ key: end, title, params: transitionOf(type)?.params ?? {}, values }];
        }),
      ];

/** The part of its jig that a dial belongs to. */
export const holderOfDial = (dial: JigDial): string =>
  'layer' in dial ? dial.layer : 'pass' in dial ? dial.pass : dial.end;
const isEnd = (key: string): key is (typeof ENDS)[number] => (ENDS as readonly string[]).includes(key);
const dialFor = (jig: DialledJig, key: string, value: string): JigDial =>
  jig.kind === 'layers'
    ? { layer: key as LayerId, value }
    : isEnd(key)
      ? { end: key, value }
      : { pass: key as PassId, value };

const TURNED = ['text', 'colour', 'number', 'angle', 'choice', 'boolean', 'font', 'ramp'];
/** All values that a jig could have a dial for: those that are there, have an effect and do not move. */
export const possibleDials = (jig: DialledJig): JigDial[] =>
  holdersOf(jig).flatMap(({ key, params, values }) =>
    Object.entries(params).flatMap(([name, param]) => {
      const value = values[name];
      const turned = TURNED.includes(param.kind) && !param.within && value && 'still' in value && !value.drivers;
      const now = (other: string) => (values[other] as { still?: unknown } | undefined)?.still;
      return turned && counts(param, now) ? [dialFor(jig, key, name)] : [];
    }),
  );

/** What a new jig is turned by. Layers: their texts and colours. What was done to a layer: colours, and the first number of each part. */
export function usualDials(jig: DialledJig): JigDial[] {
  const holders = new Map(holdersOf(jig).map((holder) => [holder.key, holder]));
  const numbered = new Set<string>();
  const usual = possibleDials(jig).filter((dial) => {
    const key = holderOfDial(dial);
    const { kind, group } = holders.get(key)!.params[dial.value]!;
    if (group) return false;
    if (jig.kind === 'layers') return kind === 'text' || kind === 'colour';
    if (kind !== 'number') return kind === 'colour';
    if (numbered.has(key)) return false;
    numbered.add(key);
    return true;
  });
  return usual.slice(0, MOST_JIG_DIALS);
}

/** A jig with one of its values set. @param key of the part that has it */
export function withJigValue<J extends DialledJig>(jig: J, key: string, name: string, value: unknown): J {
  const set = <T extends { values: Record<string, Value<unknown>> }>(holder: T): T => ({
    ...holder,
    values: { ...holder.values, [name]: still(value) },
  });
  if (jig.kind === 'layers') {
    const layers = jig.layers.map((layer) => (layer.id === key ? { ...layer, source: set(layer.source) } : layer));
    return { ...jig, layers } satisfies LayerJig as J;
  }
  const { ends, passes } = jig.layer;
  const own = isEnd(key) ? ends[key] : undefined;
  const layer = {
    ...jig.layer,
    passes: passes.map((pass) => (pass.id === key ? set(pass) : pass)),
    ...(own && { ends: { ...ends, [key]: set(own) } }),
  };
  return { ...jig, layer };
}
