import type { Draft } from 'immer';
import type { Edit } from '../edit';
import { layerIn, shotIn } from '../find';
import { wholePlace } from '../place';
import type { Layer, LayerId, Place, Project, ShotId, Source } from '../schema';
import { still } from '../value';

type At = { shot: ShotId; layer: LayerId };

const change = (at: At, name: (layer: Layer) => string, project: Project, apply: (layer: Draft<Layer>) => void): Edit => ({
  name: name(layerIn(shotIn(project, at.shot), at.layer)),
  apply: (draft) => apply(layerIn(shotIn(draft as Project, at.shot), at.layer) as Draft<Layer>),
});

/** A new layer with defaults, at full size in the middle. */
export function newLayer(id: LayerId, name: string, source: Source, span: Layer['span']): Layer {
  return {
    id,
    name,
    source,
    span,
    time: { offset: 0, speed: still(1) },
    passes: [],
    place: wholePlace(),
    opacity: still(1),
    blend: 'normal',
    sound: { gain: still(1), muted: false },
    shown: true,
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
  change(at, (layer) => `Rename ${layer.name} to ${name}`, project, (layer) => {
    layer.name = name;
  });

const SWITCHES = { shown: ['Show', 'Hide'], solo: ['Solo', 'End solo of'], locked: ['Lock', 'Unlock'] } as const;
export const switchLayer = (project: Project, at: At, which: keyof typeof SWITCHES): Edit =>
  change(at, (layer) => `${SWITCHES[which][layer[which] ? 1 : 0]} ${layer.name}`, project, (layer) => {
    layer[which] = !layer[which];
  });

export const setOpacity = (project: Project, at: At, opacity: number): Edit =>
  change(at, (layer) => `Opacity of ${layer.name}`, project, (layer) => {
    layer.opacity = still(opacity);
  });

export const setBlend = (project: Project, at: At, blend: Layer['blend']): Edit =>
  change(at, (layer) => `Blend mode of ${layer.name}`, project, (layer) => {
    layer.blend = blend;
  });

export const setSound = (project: Project, at: At, sound: { gain?: number; muted?: boolean }): Edit =>
  change(at, (layer) => (sound.muted === undefined ? `Level of ${layer.name}` : `${sound.muted ? 'Mute' : 'Unmute'} ${layer.name}`), project, (layer) => {
    if (sound.gain !== undefined) layer.sound.gain = still(sound.gain);
    if (sound.muted !== undefined) layer.sound.muted = sound.muted;
  });

/** Colour of a plain colour layer. */
export const setSourceColour = (project: Project, at: At, colour: [number, number, number]): Edit =>
  change(at, (layer) => `Colour of ${layer.name}`, project, (layer) => {
    if (layer.source.kind === 'colour') layer.source.colour = still(colour);
  });

/** Moves a layer in time. @param start first shot frame, may be negative */
export const moveLayer = (project: Project, at: At, start: number): Edit =>
  change(at, (layer) => `Move ${layer.name} in time`, project, (layer) => {
    layer.span.start = Math.round(start);
  });

/** Moves a layer's first frame and leaves its picture where it was in time. */
export const trimStart = (project: Project, at: At, start: number): Edit =>
  change(at, (layer) => `Trim start of ${layer.name}`, project, (layer) => {
    const end = layer.span.start + layer.span.length;
    const next = Math.min(Math.round(start), end - 1);
    layer.time.offset += next - layer.span.start;
    layer.span = { start: next, length: end - next };
  });

/** @param end the shot frame after the layer's last */
export const trimEnd = (project: Project, at: At, end: number): Edit =>
  change(at, (layer) => `Trim end of ${layer.name}`, project, (layer) => {
    layer.span.length = Math.max(1, Math.round(end) - layer.span.start);
  });

export type PlaceChange = Partial<{
  position: [number, number];
  scale: [number, number];
  rotation: number;
  anchor: [number, number];
  flipX: boolean;
  flipY: boolean;
}>;
export const setPlace = (project: Project, at: At, place: PlaceChange, what = 'Place'): Edit =>
  change(at, (layer) => `${what} ${layer.name}`, project, (layer) => {
    for (const [part, value] of Object.entries(place)) {
      const own = layer.place as unknown as Record<string, unknown>;
      own[part] = typeof value === 'boolean' ? value : still(value);
    }
  });

/** Puts a layer back to full size in the middle. */
export const resetPlace = (project: Project, at: At): Edit =>
  change(at, (layer) => `Reset place of ${layer.name}`, project, (layer) => {
    layer.place = wholePlace() as Draft<Place>;
  });
