// Tracks that plans name: plans carry only the name.
import { hash } from '../base/hash';
import { samplesOf, type PackedSamples, type Samples, type TrackKind } from './samples';

interface Tracked {
  kind: TrackKind;
  start: number;
  samples: PackedSamples;
}
export interface KnownTrack {
  kind: TrackKind;
  /** the frame on which its pattern was drawn */
  start: number;
  samples: Samples;
}
const names = new WeakMap<PackedSamples, string>();
const byName = new Map<string, WeakRef<Tracked>>();

/** Names a track by its content. It can be found again as long as its document lives. */
export function trackName(track: Tracked): string {
  const before = names.get(track.samples);
  if (before && byName.get(before)?.deref()) return before;
  const name = hash(`${track.kind} ${track.start} ${track.samples.first} ${track.samples.rows}`);
  names.set(track.samples, name);
  byName.set(name, new WeakRef(track));
  return name;
}
export function trackNamed(name: string): KnownTrack | null {
  const track = byName.get(name)?.deref();
  return track ? { kind: track.kind, start: track.start, samples: samplesOf(track) } : null;
}
