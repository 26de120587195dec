// What is needed to compute pictures, as plain data.
import type { PassId, StockId } from '../document/schema';
import type { CoveragePlan } from '../masks/coverage';
import type { PlainValues } from '../params/registry';
import type { BlendMode } from '../picture/blend';
import type { Matrix, Projective } from '../picture/matrix';
import type { Rect } from '../picture/rect';
import type { Reduction } from '../time/moment';

export interface Size {
  w: number;
  h: number;
}

export type SourcePlan =
  | {
      kind: 'stock';
      stock: StockId;
      name: string;
      seconds: number;
      /** tells files apart that were linked to the same stock */
      file: string;
      /** the frame after it, and how far on the way to it this moment is */
      next?: { seconds: number; share: number; how: 'blend' | 'flow' };
    }
  /** computed from its values by its declaration */
  | { kind: 'drawn'; type: string; values: PlainValues }
  /** another shot at a moment, among the shots of the frame's plan; between two of its frames, both */
  | { kind: 'shot'; key: string; next?: { key: string; share: number } }
  /** a line at full size, among the lines of the frame's plan, made smaller */
  | { kind: 'finer'; key: string }
  /** the composite of the layers below */
  | { kind: 'below' }
  /** of a type that this version does not know */
  | { kind: 'unknown'; type: string };

export interface PassPlan {
  id: PassId;
  type: string;
  values: PlainValues;
  /** the pass works only here */
  area: CoveragePlan | null;
  /** names the picture after this pass by content */
  key: string;
  /** its picture at other moments, among the lines or shots of the frame's plan; null where there is none */
  moments?: readonly (string | null)[];
  /** how strongly it works, 0…1, when it comes from an adjustment layer; then its masks lie in the shot */
  amount?: number;
}

export interface LayerPlan {
  id: string;
  name: string;
  source: SourcePlan;
  /** source size in pixels at the plan's scale */
  size: { w: number; h: number };
  sourceKey: string;
  passes: PassPlan[];
  /** names the processed picture by content */
  key: string;
  /** processed picture → shot, both at the plan's scale */
  matrix: Matrix;
  /** the same in perspective, when the layer is tilted out of the picture plane */
  tilt: Projective | null;
  /** where it is at moments while the shutter is open, when it has motion blur and moves */
  trail: readonly Projective[];
  opacity: number;
  blend: BlendMode;
  /** passes that work on the placed picture, in the shot's pixels */
  after: PassPlan[];
  /** of an adjustment layer: where it works; everywhere when there are none */
  cover: CoveragePlan[];
  /** what gives it its coverage, among the mattes of the frame's plan */
  matte: { key: string; by: 'alpha' | 'brightness'; invert: boolean } | null;
  /** passes from one on work on a part of the picture alone; on all of it when left out */
  part?: { rect: Rect; from: number };
  /** names all that says how its picture comes into the shot, by content */
  drawn: string;
}

/** The layers of a shot at a frame, as plain data. */
export interface CompositePlan {
  width: number;
  height: number;
  reduction: Reduction;
  background: readonly [number, number, number] | null;
  light: 'display' | 'linear';
  /** what of it is computed; all when left out */
  part?: Rect;
  /** bottom layer first */
  layers: LayerPlan[];
  key: string;
}
/** What layers refer to by name; flat, however long chains of them are. */
export interface Tables {
  /** layers that give others their coverage, by the name of what they draw */
  mattes: Record<string, LayerPlan>;
  /** layers at other moments, up to a pass that asks for them */
  lines: Record<string, LayerPlan>;
  /** shots that layers show, by their keys */
  shots: Record<string, CompositePlan>;
}
/** All that is needed to compute a frame. The same document, frame and scale give the same plan. */
export interface FramePlan extends CompositePlan, Tables {
  /** what of it is given back; all when left out */
  seen?: Rect;
}
/** All that is needed to compute a layer by itself. */
export interface AlonePlan extends LayerPlan {
  tables: Tables;
}
