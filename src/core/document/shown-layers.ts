// Layers that the dials of other layers name: sprites, what a picture is bent by, what an adjustment works on.
import type { LayerId } from './ids';
import type { Layer } from './layer';
import { sourceOf } from '../sources/registry';
import { paramsOf } from '../passes/registry';
import type { Params } from '../params/registry';

type Values = Layer['source']['values'];
const NAMING = ['layers', 'pictures'];
const naming = (params: Params): string[] => Object.keys(params).filter((name) => NAMING.includes(params[name]!.kind));
/** All values of a layer that may name layers, with their declarations. */
const setsOf = (layer: Layer): { params: Params; values: Values }[] => [
  { params: sourceOf(layer.source.type)?.params ?? {}, values: layer.source.values },
  ...layer.passes.map(({ type, values }) => ({ params: paramsOf(type), values })),
];
const listOf = (values: Values, name: string): readonly LayerId[] =>
  ((values[name] as { still?: unknown } | undefined)?.still as LayerId[] | undefined) ?? [];

/** The layers that a layer's dials name. */
export const layersNamed = (layer: Layer): LayerId[] => [
  ...new Set(setsOf(layer).flatMap(({ params, values }) => naming(params).flatMap((name) => listOf(values, name)))),
];

/** Gives a layer's dials other layers for those that they name; null for none. @param layer is changed */
export function nameOthers(layer: Layer, now: (id: LayerId) => LayerId | null): void {
  for (const { params, values } of setsOf(layer))
    for (const name of naming(params))
      if (values[name])
        (values as Record<string, unknown>)[name] = { still: listOf(values, name).flatMap((id) => now(id) ?? []) };
}

/** The layers whose pictures a layer cannot show, since they show its own. */
export function showing(layers: readonly Layer[], id: LayerId): Set<LayerId> {
  const found = new Set([id]);
  for (let before = 0; before < found.size;) {
    before = found.size;
    for (const layer of layers) if (layersNamed(layer).some((named) => found.has(named))) found.add(layer.id);
  }
  return found;
}
