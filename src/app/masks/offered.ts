import type { ShapeKind } from '../../core/document/mask';
import type { MaskTool } from '../stores/masking';

/** A mask that can be added, as menus and the search offer it. */
export interface OfferedMask {
  title: string;
  help: string;
  kind: Exclude<ShapeKind, 'picture' | 'matte'>;
  tool?: MaskTool;
  /** what it is wished for by */
  words: string;
}
export const OFFERED_MASKS: readonly OfferedMask[] = [
  {
    title: 'Path by points',
    help: 'Click corners, drag curves; click the first point to close',
    kind: 'path',
    words: 'pen draw a shape around outline roto rotoscope cut out polygon',
  },
  {
    title: 'Freehand path',
    help: 'Draw round it in one go',
    kind: 'path',
    tool: 'freehand',
    words: 'lasso draw a shape around hand roto',
  },
  {
    title: 'Rectangle',
    help: 'With round corners if wanted',
    kind: 'rectangle',
    words: 'box square round corners hide part',
  },
  { title: 'Ellipse', help: 'A circle or an oval', kind: 'ellipse', words: 'circle oval round spot face hide part' },
  { title: 'Line', help: 'Everything on one side of a line', kind: 'line', words: 'half split screen side wipe' },
  { title: 'Brush', help: 'Paint what is covered', kind: 'brush', words: 'paint draw strokes hide part erase' },
  {
    title: 'Linear gradient',
    help: 'Solid at one end, clear at the other',
    kind: 'linear',
    words: 'soft sky horizon graduated fade across',
  },
  {
    title: 'Radial gradient',
    help: 'Solid in the middle, clear at the rim',
    kind: 'radial',
    words: 'spotlight soft circle',
  },
  { title: 'Text', help: 'The letters of a text', kind: 'text', words: 'letters words video in text' },
];
export const SELECTION_WORDS =
  'cut out a person rotoscope remove background without green screen automatic subject select object';
