import type { Edit } from '../edit';
import { shotIn } from '../find';
import type { Marker, Project, Shot, ShotId } from '../schema';

const sorted = (markers: Marker[]): Marker[] => markers.sort((a, b) => a.at - b.at);

/** Adds a marker, or takes the one at that frame away. */
export const toggleMarker = (project: Project, id: ShotId, marker: Marker): Edit => {
  const there = shotIn(project, id).markers.some((item) => item.at === marker.at);
  return {
    name: there ? 'Remove marker' : 'Add marker',
    apply: (draft) => {
      const shot = shotIn(draft as Project, id);
      shot.markers = there ? shot.markers.filter((item) => item.at !== marker.at) : sorted([...shot.markers, marker]);
    },
  };
};

/** Moves, renames or recolours the marker at a frame; one that stood at the new frame gives way. */
export const changeMarker = (id: ShotId, at: number, change: Partial<Marker>): Edit => ({
  name: change.at !== undefined ? 'Move marker' : 'Change marker',
  apply: (draft) => {
    const shot = shotIn(draft as Project, id);
    const own = shot.markers.find((item) => item.at === at);
    if (own)
      shot.markers = sorted([
        ...shot.markers.filter((item) => item.at !== at && item.at !== change.at),
        { ...own, ...change },
      ]);
  },
});

/** Sets what plays and renders; from and to are shot frames, `to` the one after the last. Null means all. */
export const setRange = (id: ShotId, range: Shot['range']): Edit => ({
  name: range ? 'In and out' : 'Clear in and out',
  apply: (draft) => {
    const shot = shotIn(draft as Project, id);
    shot.range = range && {
      from: Math.max(0, Math.min(range.from, shot.length - 1)),
      to: Math.max(1, Math.min(range.to, shot.length)),
    };
    if (shot.range && shot.range.to <= shot.range.from) shot.range.to = shot.range.from + 1;
  },
});

/** The frames of a shot that play and render: from, and the one after the last. */
export const rangeOf = (shot: Pick<Shot, 'range' | 'length'>): { from: number; to: number } => ({
  from: Math.min(shot.range?.from ?? 0, shot.length - 1),
  to: Math.min(shot.range?.to ?? shot.length, shot.length),
});
