// Colour decision lists as .cc, .ccc and .cdl files.
import { JackplaneError } from '../base/errors';

/** A colour decision list as its standard has it. Source: ASC CDL 1.2. */
export interface Cdl {
  slope: readonly [number, number, number];
  offset: readonly [number, number, number];
  power: readonly [number, number, number];
  saturation: number;
}

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** Corrections of a file by their ids, in its order. @throws JackplaneError bad-media */
export function readCdl(text: string, file: string): { id: string; cdl: Cdl }[] {
  const bad = (what: string): JackplaneError =>
    new JackplaneError('bad-media', `“${file}” ${what}.`, 'Export the correction again as .cc, .ccc or .cdl.');
  const found = [...text.matchAll(/<ColorCorrection\b([^>]*)>([\s\S]*?)<\/ColorCorrection>/g)];
  if (!found.length) throw bad('holds no ColorCorrection');
  return found.slice(0, 1000).map(([, attributes, body], i) => {
    const id = /\bid\s*=\s*"([^"]*)"/.exec(attributes!)?.[1] ?? `${i + 1}`;
    const numbers = (name: string, count: number, begins: number): number[] => {
      const inner = new RegExp(`<${name}>([^<]*)</${name}>`).exec(body!)?.[1];
      if (inner === undefined) return Array.from({ length: count }, () => begins);
      const parts = inner.trim().split(/\s+/).map(Number);
      if (parts.length !== count || parts.some((v) => !Number.isFinite(v)))
        throw bad(
          `: ${name} of correction “${id.slice(0, 40)}” is not ${count === 1 ? 'a number' : `${count} numbers`}`,
        );
      return parts;
    };
    const slope = numbers('Slope', 3, 1);
    const power = numbers('Power', 3, 1);
    if (slope.some((v) => v < 0) || power.some((v) => v <= 0))
      throw bad(`: correction “${id.slice(0, 40)}” has a slope below 0 or a power that is not above 0`);
    return {
      id,
      cdl: {
        slope: slope as unknown as Cdl['slope'],
        offset: numbers('Offset', 3, 0) as unknown as Cdl['offset'],
        power: power as unknown as Cdl['power'],
        saturation: numbers('Saturation', 1, 1)[0]!,
      },
    };
  });
}

const correction = (id: string, { slope, offset, power, saturation }: Cdl, indent: string): string =>
  [
    `<ColorCorrection id="${escaped(id)}">`,
    '  <SOPNode>',
    `    <Slope>${slope.join(' ')}</Slope>`,
    `    <Offset>${offset.join(' ')}</Offset>`,
    `    <Power>${power.join(' ')}</Power>`,
    '  </SOPNode>',
    '  <SatNode>',
    `    <Saturation>${saturation}</Saturation>`,
    '  </SatNode>',
    '</ColorCorrection>',
  ]
    .map((line) => `${indent}${line}`)
    .join('\n');

const NAMESPACE = 'urn:ASC:CDL:v1.01';
export type CdlKind = 'cc' | 'ccc' | 'cdl';
/** One correction as a file of one of the three kinds. */
export function writeCdl(kind: CdlKind, id: string, cdl: Cdl): string {
  const head = '<?xml version="1.0" encoding="UTF-8"?>';
  if (kind === 'cc')
    return `${head}\n${correction(id, cdl, '').replace('<ColorCorrection ', `<ColorCorrection xmlns="${NAMESPACE}" `)}\n`;
  if (kind === 'ccc')
    return `${head}\n<ColorCorrectionCollection xmlns="${NAMESPACE}">\n${correction(id, cdl, '  ')}\n</ColorCorrectionCollection>\n`;
  return `${head}\n<ColorDecisionList xmlns="${NAMESPACE}">\n  <ColorDecision>\n${correction(id, cdl, '    ')}\n  </ColorDecision>\n</ColorDecisionList>\n`;
}
