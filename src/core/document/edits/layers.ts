import type { Draft } from 'immer';
import { followLoop, matteLoop } from '../circles';
import type { Edit } from '../edit';
import { layerIn, shotIn } from '../find';
import {
  type Layer,
  type LayerId,
  type Pass,
  type PassId,
  type Place,
  type Project,
  type ShotId,
  type StockId,
  type Source,
} from '../schema';
import { still, type Value } from '../../base/value';
import { JackplaneError } from '../../base/errors';
import { firstValues } from '../../params/registry';
import { sourceOf } from '../../sources/registry';
import { momentOf } from '../../place/moment';
import { apply, invert, multiply } from '../../picture/matrix';
import { plain } from '../draft';
import { framedFrames, type FramingStop } from '../../place/framing';
import { wholePlace, carriedBy, placeAt, type Placed } from '../../place/place';
import { inOrder, newPass } from './passes';
import { mapped, withKeys } from './values';
import { keysOf } from '../../base/value';
import { setValues, type At } from './keys';

const nameOf = (project: Project, at: At): string => layerIn(shotIn(project, at.shot), at.layer).name;

const change = (
  at: At,
  name: (layer: Layer) => string,
  project: Project,
  apply: (layer: Draft<Layer>) => void,
): Edit => ({
  name: name(layerIn(shotIn(project, at.shot), at.layer)),
  apply: (draft) => apply(layerIn(shotIn(draft as Project, at.shot), at.layer) as Draft<Layer>),
});

/** A source with its defaults, and some values of its own. */
export const newSource = (type: string, values: Readonly<Record<string, unknown>> = {}): Source => ({
  type,
  values: {
    ...firstValues(sourceOf(type)!.params),
    ...Object.fromEntries(Object.entries(values).map(([name, value]) => [name, still(value)])),
  },
});
export const stockSource = (stock: StockId): Source => newSource('stock', { stock });

/** A new layer with defaults, at full size in the middle. */
export function newLayer(id: LayerId, name: string, source: Source, span: Layer['span']): Layer {
  return {
    id,
    name,
    source,
    span,
    time: { offset: 0, speed: still(1), between: 'nearest', keepPitch: true },
    masks: [],
    passes: [],
    place: wholePlace(),
    opacity: still(1),
    blend: 'normal',
    sound: { gain: still(1), muted: false, effects: [] },
    ends: {},
    shown: true,
    parent: null,
    motionBlur: null,
    matte: null,
    solo: false,
    locked: false,
  };
}

/** Adds a layer above the one that is at `index` now (0 = top). */
export const addLayer = (shot: ShotId, layer: Layer, index = 0): Edit => ({
  name: `Add ${layer.name}`,
  apply: (draft) => {
    shotIn(draft as Project, shot).layers.splice(index, 0, layer);
  },
});

export const removeLayer = (project: Project, at: At): Edit => ({
  name: `Delete ${layerIn(shotIn(project, at.shot), at.layer).name}`,
  apply: (draft) => {
    const shot = shotIn(draft as Project, at.shot);
    shot.layers = shot.layers.filter((layer) => layer.id !== at.layer);
  },
});

/** Moves a layer within the stack. @param index its place afterwards, 0 = top */
export const orderLayer = (project: Project, at: At, index: number): Edit => ({
  name: `Reorder ${layerIn(shotIn(project, at.shot), at.layer).name}`,
  apply: (draft) => {
    const { layers } = shotIn(draft as Project, at.shot);
    const from = layers.findIndex((layer) => layer.id === at.layer);
    const [layer] = layers.splice(from, 1);
    layers.splice(Math.max(0, Math.min(layers.length, index)), 0, layer!);
  },
});

export const renameLayer = (project: Project, at: At, name: string): Edit =>
  change(
    at,
    (layer) => `Rename ${layer.name} to ${name}`,
    project,
    (layer) => {
      layer.name = name;
    },
  );

const SWITCHES = { shown: ['Show', 'Hide'], solo: ['Solo', 'End solo of'], locked: ['Lock', 'Unlock'] } as const;
export const switchLayer = (project: Project, at: At, which: keyof typeof SWITCHES): Edit =>
  change(
    at,
    (layer) => `${SWITCHES[which][layer[which] ? 1 : 0]} ${layer.name}`,
    project,
    (layer) => {
      layer[which] = !layer[which];
    },
  );

export const setOpacity = (project: Project, at: At, opacity: number): Edit =>
  setValues(at, { opacity }, `Opacity of ${nameOf(project, at)}`);

export const setBlend = (project: Project, at: At, blend: Layer['blend']): Edit =>
  change(
    at,
    (layer) => `Blend mode of ${layer.name}`,
    project,
    (layer) => {
      layer.blend = blend;
    },
  );

export const setGain = (project: Project, at: At, gain: number): Edit =>
  setValues(at, { 'sound.gain': gain }, `Level of ${nameOf(project, at)}`);

/** Gives a layer's sound a level as a whole, with all its keyframes. */
export const setLevel = (project: Project, at: At, level: Value<number>): Edit =>
  change(
    at,
    (layer) => `Level of ${layer.name}`,
    project,
    (layer) => {
      layer.sound.gain = level as Draft<Value<number>>;
    },
  );

export const setMuted = (project: Project, at: At, muted: boolean): Edit =>
  change(
    at,
    (layer) => `${muted ? 'Mute' : 'Unmute'} ${layer.name}`,
    project,
    (layer) => {
      layer.sound.muted = muted;
    },
  );

/** Sets one value of what a layer shows; a keyed one gets a keyframe at the playhead. */
export const setSourceValue = (project: Project, at: At, name: string, value: unknown): Edit => {
  const { source, name: layer } = layerIn(shotIn(project, at.shot), at.layer);
  const label = sourceOf(source.type)?.params[name]?.label ?? name;
  return setValues(at, { [`source.${name}`]: value }, `${label} of ${layer}`);
};

export type PlaceChange = Partial<{
  position: [number, number];
  scale: [number, number];
  rotation: number;
  tilt: [number, number];
  perspective: number;
  depth: number;
  anchor: [number, number];
  flipX: boolean;
  flipY: boolean;
}>;
export const setPlace = (project: Project, at: At, place: PlaceChange, what = 'Place'): Edit => {
  const { flipX, flipY, ...values } = place;
  const valued = setValues(
    at,
    Object.fromEntries(Object.entries(values).map(([part, value]) => [`place.${part}`, value])),
    `${what} ${nameOf(project, at)}`,
  );
  return {
    name: valued.name,
    apply: (draft) => {
      valued.apply(draft);
      const own = layerIn(shotIn(draft as Project, at.shot), at.layer).place;
      if (flipX !== undefined) own.flipX = flipX;
      if (flipY !== undefined) own.flipY = flipY;
    },
  };
};

/** From which side a layer is seen. */
export const setSide = (project: Project, at: At, side: Place['side']): Edit =>
  change(
    at,
    (layer) =>
      `${layer.name} is seen from ${side === 'both' ? 'both sides' : side === 'front' ? 'its front' : 'behind'}`,
    project,
    ({ place }) => {
      if (side === 'both' || !side) delete place.side;
      else place.side = side;
    },
  );

/** A one-click placement; what would go beyond its part of the shot is cut by a pane, which the next placement takes away again. @param pane the id of a new one */
export const putLayer = (
  project: Project,
  at: At,
  { position, scale, pane }: Placed,
  what: string,
  id: PassId,
): Edit => {
  const placed = setPlace(project, at, { position, scale, rotation: 0, anchor: [0, 0] }, what);
  return {
    name: placed.name,
    apply: (draft) => {
      placed.apply(draft);
      const layer = layerIn(shotIn(draft as Project, at.shot), at.layer);
      const own = layer.passes.find((pass) => pass.type === 'pane');
      if (!pane) layer.passes = layer.passes.filter((pass) => pass.type !== 'pane');
      else if (!own) layer.passes = inOrder([...layer.passes, newPass(id, 'pane', null, pane)] as Draft<Pass>[]);
      else {
        own.on = true;
        const values = Object.entries(pane).map(([name, value]) => [`pass.${own.id}.${name}`, value]);
        setValues(at, Object.fromEntries(values), what).apply(draft);
      }
    },
  };
};

/** Sets what of a layer's picture fills the shot, and when; its place comes back when the framing is let go. @param stops ascending; none = no framing */
export const setFraming = (project: Project, at: At, stops: readonly FramingStop[]): Edit =>
  change(
    at,
    (layer) => `${stops.length ? 'Framing' : 'No framing'} of ${layer.name}`,
    project,
    ({ place }) => {
      if (stops.length)
        place.framing = stops.map(({ at: frame, x, y, width, ease }) => ({ at: frame, x, y, width, ease })) as Draft<
          NonNullable<Place['framing']>
        >;
      else delete place.framing;
    },
  );

/** Writes a framing as keyframes of position and scale, which show the same on every frame. */
export const framingToKeys = (project: Project, at: At): Edit =>
  change(
    at,
    (layer) => `Framing of ${layer.name} as keyframes`,
    project,
    (layer) => {
      const place = plain(layer.place) as Place;
      const stops = place.framing;
      if (!stops) return;
      const shot = shotIn(project, at.shot);
      const moment = momentOf(project, shot, layerIn(shot, at.layer), 0);
      const steady = {
        ...place,
        position: undriven(place.position),
        scale: undriven(place.scale),
        rotation: undriven(place.rotation),
        anchor: undriven(place.anchor),
      };
      const turning = [place.rotation, place.anchor].flatMap((value) => keysOf<unknown>(value).map((key) => key.at));
      const spots = framedFrames(stops, turning).map((frame) => ({ frame, ...placeAt({ ...moment, frame }, steady) }));
      const keyed = (part: 'position' | 'scale') =>
        withKeys(
          place[part],
          spots.map((spot) => ({
            at: spot.frame,
            value: [...spot[part]] as [number, number],
            ease: 'linear' as const,
          })),
          [...spots[0]![part]] as [number, number],
        );
      layer.place.position = keyed('position') as Draft<Place>['position'];
      layer.place.scale = keyed('scale') as Draft<Place>['scale'];
      delete layer.place.framing;
    },
  );
const undriven = <T>({ drivers: _, ...value }: Value<T>): Value<T> => value as Value<T>;

/** Puts a layer back to full size in the middle, without a pane. */
export const resetPlace = (project: Project, at: At): Edit =>
  change(
    at,
    (layer) => `Reset place of ${layer.name}`,
    project,
    (layer) => {
      layer.place = wholePlace() as Draft<Place>;
      layer.passes = layer.passes.filter((pass) => pass.type !== 'pane');
    },
  );

/**
 * Lets a layer go along with another one's place, or with none. It stays where it is at the playhead: its own values are
 * turned into the other's space and back. @throws JackplaneError loop
 */
export const setParent = (project: Project, at: At, parent: Layer['parent']): Edit => {
  const shot = shotIn(project, at.shot);
  const layer = layerIn(shot, at.layer);
  const frame = at.frame ?? layer.span.start;
  const loop = followLoop(shot.layers.map((item) => (item.id === layer.id ? { ...item, parent } : item)));
  if (loop)
    throw new JackplaneError(
      'loop',
      `Then these layers would follow each other in a circle: ${loop.join(', ')}.`,
      'Choose another layer to follow.',
    );
  const size = { w: shot.width, h: shot.height };
  const moment = momentOf(project, shot, layer, frame);
  const before = carriedBy(moment);
  const after = carriedBy({ ...moment, layer: { ...layer, parent } });
  // own' = after⁻¹ · before · own
  const back = invert(after) ?? [1, 0, 0, 1, 0, 0];
  const change = multiply(back, before);
  const turn = (Math.atan2(change[1], change[0]) * 180) / Math.PI;
  const stretch = Math.hypot(change[0], change[1]);
  return {
    name: parent ? `${layer.name} follows ${layerIn(shot, parent.layer).name}` : `${layer.name} follows nothing`,
    apply: (draft) => {
      const own = layerIn(shotIn(draft as Project, at.shot), at.layer);
      own.parent = parent;
      const place = plain(own.place);
      const moved = mapped(place.position, ([x, y]) => {
        const [px, py] = apply(change, x + size.w / 2, y + size.h / 2);
        return [px - size.w / 2, py - size.h / 2] as [number, number];
      });
      // handles of the path are directions: they turn and stretch with it, and do not shift
      const turned = ([x, y]: [number, number]): [number, number] => [
        change[0] * x + change[2] * y,
        change[1] * x + change[3] * y,
      ];
      own.place.position = (
        'keys' in moved
          ? {
              ...moved,
              keys: moved.keys.map(({ bend, ...key }) => ({
                ...key,
                ...(bend ? { bend: { in: turned(bend.in), out: turned(bend.out) } } : {}),
              })),
            }
          : moved
      ) as Draft<Place>['position'];
      if (Math.abs(turn) > 1e-9) own.place.rotation = mapped(place.rotation, (degrees) => degrees + turn);
      if (Math.abs(stretch - 1) > 1e-9)
        own.place.scale = mapped(place.scale, ([x, y]) => [x * stretch, y * stretch] as [number, number]);
    },
  };
};

/** Lets a layer take its coverage from another layer of the shot, or from none. @throws JackplaneError loop */
export const setMatte = (project: Project, at: At, matte: Layer['matte']): Edit => {
  const shot = shotIn(project, at.shot);
  const layer = layerIn(shot, at.layer);
  const loop = matteLoop(shot.layers.map((item) => (item.id === layer.id ? { ...item, matte } : item)));
  if (loop)
    throw new JackplaneError(
      'loop',
      `Then these layers would take their mattes from each other in a circle: ${loop.join(', ')}.`,
      'Choose another layer for the matte.',
    );
  return change(
    at,
    () => (matte ? `Matte of ${layer.name} from ${layerIn(shot, matte.layer).name}` : `No matte for ${layer.name}`),
    project,
    (own) => {
      own.matte = matte;
    },
  );
};
