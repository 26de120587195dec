// What is known while the plans of a frame are made, and how the plans of what lies in them are.
import type { Layer, PassId, Project, Shot } from '../document/schema';
import type { Moment, Reduction } from '../time/moment';
import type { CompositePlan, LayerPlan, Size, Tables } from './types';

export interface PlanOptions {
  reduction?: Reduction;
  /** leave out this pass, for before and after */
  without?: PassId | undefined;
  /** at a smaller scale: passes that read their picture's own pixels, as keys do, get them, and what they give is made smaller */
  finer?: boolean | undefined;
}

/** What is planned already, and what it is planned with. */
export interface Planned {
  how: Planner;
  /** a layer that gives its matte to others is planned once */
  layers: Map<string, LayerPlan | null>;
  tables: Tables;
  without: PassId | undefined;
  finer?: boolean | undefined;
  /** how many groups it lies in */
  depth: number;
  /** lines end before this pass, which asks for other moments of them */
  until?: PassId;
  /** how many passes that ask for other moments it lies in */
  moments?: number;
  /** how many layers that show each other it lies in, and what was planned of them: where many show many, each is planned once */
  pictures?: number;
  pictured?: Map<string, string | null>;
}
/** Shots lie in shots, and layers show layers: each kind of plan is made by way of this, so that none of their files needs the others. */
export interface Planner {
  composite(project: Project, shot: Shot, frame: number, options: PlanOptions, within: Within): CompositePlan;
  layer(
    project: Project,
    shot: Shot,
    layer: Layer,
    frame: number,
    reduction: Reduction,
    known: Planned,
  ): LayerPlan | null;
  line(moment: Moment, full: Size, known: Planned): LayerPlan;
}
/** What a shot is told by what it lies in. */
export type Within = Pick<Planned, 'how' | 'tables' | 'depth'> & Partial<Planned>;

/** Of the shot, at the plan's scale. */
export const shotSize = ({ shot, reduction }: Pick<Moment, 'shot' | 'reduction'>): Size => ({
  w: Math.ceil(shot.width / reduction),
  h: Math.ceil(shot.height / reduction),
});
