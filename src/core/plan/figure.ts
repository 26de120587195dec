import { sourceSize } from '../document/find';
import type { WrittenFigure } from '../formats/svg-drawing';
import { pathData } from '../formats/svg-path';
import { multiply, translation } from '../picture/matrix';
import { layerMatrix } from '../place/projection';
import { waysOf, type Form, type Way } from '../sources/figure';
import { shape } from '../sources/shape';
import type { Moment } from '../time/moment';
import { valueAt } from '../time/values';
import { resolveTools, valuesOf } from './passes';

type Rgb = readonly [number, number, number];
type ShapeValues = Form & {
  fill: 'colour' | 'ramp' | 'none';
  colour: Rgb;
  colours: readonly (readonly [number, Rgb])[];
  run: number;
  line: number;
  lineColour: Rgb;
  cap: 'flat' | 'round' | 'square';
  join: 'mitre' | 'round' | 'bevel';
};

/** A shape's layer at a moment as a figure, from the middle of its shot. Its depth turn, its dashes and the drawn part of its line are left out. */
export function figureOf(moment: Moment): WrittenFigure {
  const { project, shot, layer } = moment;
  const full = sourceSize(project, shot, layer)!;
  const v = valuesOf(shape.params, layer.source.values, resolveTools(moment, full)) as unknown as ShapeValues;
  const placed = multiply(layerMatrix(moment, full), translation(full.w / 2, full.h / 2));
  const free = v.form === 'path';
  return {
    name: layer.name,
    d: free ? pathsData(v) : waysOf(v).map(ringData).join(''),
    fill:
      v.fill === 'none' || v.form === 'line' ? null : v.fill === 'ramp' ? { colours: v.colours, run: v.run } : v.colour,
    line: v.line > 0 ? { colour: v.lineColour, width: v.line, cap: v.cap, join: v.join } : null,
    opacity: valueAt(layer.opacity, moment),
    evenOdd: free && v.paths.masks.some(({ mode }) => mode === 'exclude' || mode === 'subtract'),
    matrix: multiply(translation(-shot.width / 2, -shot.height / 2), placed),
  };
}

/** Free paths with their curves; what has no vertices as the lines that it is drawn by. */
const pathsData = (v: ShapeValues): string =>
  v.paths.masks
    .map((mask) =>
      mask.shape.kind === 'path'
        ? pathData(mask.shape.path, mask.shape.closed)
        : waysOf({ ...v, paths: { ...v.paths, masks: [mask] } })
            .map(ringData)
            .join(''),
    )
    .join('');

const ringData = ({ ring, closed }: Way): string => {
  const points = Array.from({ length: ring.length / 2 }, (_, i) =>
    [ring[2 * i]!, ring[2 * i + 1]!].map((v) => Math.round(v * 1000) / 1000).join(' '),
  );
  return `M${points.join('L')}${closed ? 'Z' : ''}`;
};
