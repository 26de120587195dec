// The few dials of a jig that are worth turning before it is put in.
import { still } from '../../base/value';
import { counts } from '../../params/define';
import type { Params } from '../../params/registry';
import { sourceOf } from '../../sources/registry';
import { MOST_JIG_DIALS, type JigDial, type Layer, type LayerJig } from '../schema';

const TURNED = ['text', 'colour', 'number', 'angle', 'choice', 'boolean', 'font', 'ramp'];
const USUAL = ['text', 'colour'];

const paramsOf = ({ source }: Layer): Params => sourceOf(source.type)?.params ?? {};
const stillOf = ({ source }: Layer, name: string): unknown => (source.values[name] as { still?: unknown }).still;

/** All values of layers that a jig could have a dial for: those that are there, have an effect and do not move. */
export const possibleDials = (layers: readonly Layer[]): JigDial[] =>
  layers.flatMap((layer) =>
    Object.entries(paramsOf(layer)).flatMap(([name, param]) => {
      const value = layer.source.values[name];
      const turned = TURNED.includes(param.kind) && !param.within && value && 'still' in value && !value.drivers;
      return turned && counts(param, (other) => stillOf(layer, other)) ? [{ layer: layer.id, value: name }] : [];
    }),
  );

/** The dials that a new jig has: its texts and its colours. */
export const usualDials = (layers: readonly Layer[]): JigDial[] =>
  possibleDials(layers)
    .filter(({ layer: id, value }) => {
      const layer = layers.find((item) => item.id === id)!;
      const { kind, group } = paramsOf(layer)[value]!;
      return USUAL.includes(kind) && !group;
    })
    .slice(0, MOST_JIG_DIALS);

/** A jig with some values of its layers set. */
export const withJigValue = (jig: LayerJig, { layer: id, value: name }: JigDial, value: unknown): LayerJig => ({
  ...jig,
  layers: jig.layers.map((layer) =>
    layer.id === id
      ? { ...layer, source: { ...layer.source, values: { ...layer.source.values, [name]: still(value) } } }
      : layer,
  ),
});
