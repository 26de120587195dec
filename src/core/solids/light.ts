// What solids are made of and lit by, as the kernel that draws them takes it.
type Rgb = readonly [number, number, number];

/** Numbers of a material. */
const NUMBERS = 8;
type Which = 1 | 2 | 3;
type Materials = Record<`${'front' | 'side' | 'back'}Colour`, Rgb> &
  Record<`${'front' | 'side' | 'back'}${'Glow' | 'Gloss'}`, number>;
type Lights = Record<`${'strength' | 'around' | 'height'}${Which}`, number> & Record<`light${Which}`, Rgb>;
/** Materials of front, sides and back, and three lights; angles in degrees. */
export type Look = Materials & Lights;

/** Source: IEC 61966-2-1. */
const linear = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);

/** @returns three materials: display-encoded colour, glow, gloss; of three lights x, y and z of where they come from (y down, z towards the eye), four numbers each, then their linear colours */
export function litBy(v: Look): { looks: Float32Array; lights: Float32Array } {
  const looks = new Float32Array(3 * NUMBERS);
  const lights = new Float32Array(24);
  (['front', 'side', 'back'] as const).forEach((part, i) =>
    looks.set([...v[`${part}Colour`], 0, v[`${part}Glow`], v[`${part}Gloss`]], i * NUMBERS),
  );
  ([1, 2, 3] as const).forEach((which: Which, i) => {
    const [around, height] = [v[`around${which}`], v[`height${which}`]].map((angle) => (angle * Math.PI) / 180) as [
      number,
      number,
    ];
    const flat = Math.cos(height);
    const from = [flat * Math.cos(around), flat * Math.sin(around), Math.sin(height)];
    from.forEach((v, axis) => (lights[4 * axis + i] = v));
    const colour = v[`light${which}`].map((c) => linear(c) * v[`strength${which}`]);
    lights.set(colour, 12 + 4 * i);
  });
  return { looks, lights };
}
