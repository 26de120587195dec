// Edits of tracks. A whole run is one of them.
import type { Draft } from 'immer';
import { packSamples, samplesOf, withSamples, type Sample } from '../../track/samples';
import { plain } from '../draft';
import type { Edit } from '../edit';
import { trackIn } from '../find';
import type { Project } from '../schema';
import type { Track, TrackId } from '../track';

const onTrack = (
  project: Project,
  id: TrackId,
  name: (track: Track) => string,
  change: (track: Track) => Partial<Track>,
): Edit => ({
  name: name(trackIn(project, id)),
  apply: (draft) => {
    const track = trackIn(draft as Project, id) as Draft<Track>;
    Object.assign(track, change(plain(track) as Track));
  },
});

export const addTrack = (track: Track): Edit => ({
  name: `New track ${track.name}`,
  apply: (project) => {
    project.tracks.push(track as Draft<Track>);
  },
});

export const removeTrack = (project: Project, id: TrackId): Edit => ({
  name: `Delete track ${trackIn(project, id).name}`,
  apply: (draft) => {
    draft.tracks = draft.tracks.filter((track) => track.id !== id);
  },
});

export const renameTrack = (project: Project, id: TrackId, name: string): Edit =>
  onTrack(
    project,
    id,
    (track) => `Rename track ${track.name}`,
    () => ({ name }),
  );

/** Draws the patterns elsewhere: what was measured with the old ones is gone. */
export const redrawTrack = (project: Project, id: TrackId, change: Pick<Track, 'patterns' | 'start'>): Edit =>
  onTrack(
    project,
    id,
    (track) => `Pattern of ${track.name}`,
    ({ kind }) => ({
      ...change,
      samples: packSamples({ first: 0, rows: [] }, kind),
      fixed: [],
    }),
  );

/** Where a track looks. @param looks null for everywhere */
export const setLooks = (project: Project, id: TrackId, looks: Track['looks'] | null): Edit =>
  onTrack(
    project,
    id,
    (track) => `Where ${track.name} looks`,
    () => ({ looks: looks ?? undefined }),
  );

export const setReach = (project: Project, id: TrackId, reach: number): Edit =>
  onTrack(
    project,
    id,
    (track) => `Search of ${track.name}`,
    () => ({ reach }),
  );

/** What a run measured, or what takes its place. Frames that were mended by hand stay. @param changes by frame; null where nothing is known */
export const writeSamples = (
  project: Project,
  id: TrackId,
  changes: ReadonlyMap<number, Sample | null>,
  name: string,
): Edit =>
  onTrack(
    project,
    id,
    (track) => `${name}: ${track.name}`,
    (track) => {
      const fixed = new Set(track.fixed);
      const free = new Map([...changes].filter(([frame]) => !fixed.has(frame)));
      return { samples: packSamples(withSamples(samplesOf(track), free), track.kind) };
    },
  );

/** All samples of a track put in place of the old ones, the mended ones too. @param now the old frame → the new one, where frames change places */
export const replaceSamples = (
  project: Project,
  id: TrackId,
  rows: ReadonlyMap<number, Sample>,
  name: string,
  now: (frame: number) => number = (frame) => frame,
): Edit =>
  onTrack(
    project,
    id,
    (track) => `${name}: ${track.name}`,
    (track) => ({
      samples: packSamples(withSamples({ first: 0, rows: [] }, rows), track.kind),
      start: Math.max(0, now(track.start)),
      fixed: track.fixed
        .map(now)
        .filter((frame) => rows.has(frame))
        .sort((a, b) => a - b),
    }),
  );

/** Puts a track's points of one frame where they are, by hand; from then on no run changes them. */
export const mendSample = (project: Project, id: TrackId, frame: number, points: Sample['points']): Edit =>
  onTrack(
    project,
    id,
    (track) => `Mend ${track.name} on frame ${frame}`,
    (track) => ({
      samples: packSamples(withSamples(samplesOf(track), new Map([[frame, { confidence: 1, points }]])), track.kind),
      fixed: [...new Set([...track.fixed, frame])].sort((a, b) => a - b),
    }),
  );

/** Lets a mended frame be measured again; it stays where it is until then. */
export const freeSample = (project: Project, id: TrackId, frame: number): Edit =>
  onTrack(
    project,
    id,
    (track) => `Free frame ${frame} of ${track.name}`,
    (track) => ({
      fixed: track.fixed.filter((other) => other !== frame),
    }),
  );
