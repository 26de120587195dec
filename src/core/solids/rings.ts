import { boundsOf, type Ring } from '../masks/path';

/** What is to be made a body of: an outline with the holes in it. */
export interface Plate {
  outline: Ring;
  holes: Ring[];
}

/** Area by the direction it is gone round in: positive clockwise, y down. */
function areaOf(ring: Ring): number {
  let area = 0;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    area += ring[j]! * ring[i + 1]! - ring[i]! * ring[j + 1]!;
  return area / 2;
}
function encloses(ring: Ring, x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [ay, by] = [ring[i + 1]!, ring[j + 1]!];
    if (ay > y !== by > y && x < ring[i]! + ((y - ay) / (by - ay)) * (ring[j]! - ring[i]!)) inside = !inside;
  }
  return inside;
}

/**
 * Sorts rings into outlines and the holes in them.
 * @param holesTurn true for letters, whose holes go round the other way and whose strokes may lie over each other; otherwise every second ring from outside is a hole
 */
export function platesOf(rings: readonly Ring[], holesTurn: boolean): Plate[] {
  const known = rings
    .filter((ring) => ring.length >= 6)
    .map((ring) => ({ ring, area: areaOf(ring), box: boundsOf([ring]) }))
    .filter(({ area }) => area !== 0)
    .sort((a, b) => Math.abs(b.area) - Math.abs(a.area));
  const plates: { plate: Plate; area: number }[] = [];
  known.forEach(({ ring, area, box: [left, top, right, bottom] }, i) => {
    const around = known.slice(0, i).filter(({ ring: outer, box }) => {
      const within = box[0] <= left && box[1] <= top && box[2] >= right && box[3] >= bottom;
      return within && encloses(outer, ring[0]!, ring[1]!);
    });
    const hole = holesTurn ? around.length > 0 && Math.sign(known[0]!.area) !== Math.sign(area) : around.length % 2 > 0;
    const home = hole && plates.findLast(({ plate }) => around.some((outer) => outer.ring === plate.outline));
    if (home) home.plate.holes.push(ring);
    else plates.push({ plate: { outline: ring, holes: [] }, area });
  });
  return plates.map(({ plate }) => plate);
}

/** How wide the strokes are that plates consist of: of a long strip its breadth, of a disc its radius. */
export function strokeOf(plates: readonly Plate[]): number {
  const rings = plates.flatMap(({ outline, holes }) => [outline, ...holes]);
  const area = plates.reduce(
    (sum, { outline, holes }) =>
      sum + Math.abs(areaOf(outline)) - holes.reduce((all, hole) => all + Math.abs(areaOf(hole)), 0),
    0,
  );
  const round = rings.reduce((sum, ring) => sum + lengthOf(ring), 0);
  return round > 0 ? (2 * Math.max(0, area)) / round : 0;
}
function lengthOf(ring: Ring): number {
  let long = 0;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    long += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
  return long;
}
