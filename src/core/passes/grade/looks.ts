// Looks: a few passes with values, to begin a grade with. What they set are ordinary dials.

export interface GradeLook {
  title: string;
  /** what a wish for it may be */
  words: string;
  passes: readonly (readonly [type: string, values: Readonly<Record<string, unknown>>])[];
}

/** In the order in which the sheet shows them. */
export const GRADE_LOOKS: readonly GradeLook[] = [
  {
    title: 'Late sun',
    words: 'warm golden evening sunset',
    passes: [
      ['balance', { temperature: 7900, tint: 0.04 }],
      ['wheels', { lift: [0.03, -0.02, 0.015], gain: [0.12, 0.12, 0.02] }],
    ],
  },
  {
    title: 'Before dawn',
    words: 'cold blue morning night sunrise',
    passes: [
      ['tone', { exposure: -0.6, contrast: -0.1, brightColour: 0.8 }],
      ['balance', { temperature: 4700 }],
      ['colour', { saturation: 0.8 }],
    ],
  },
  {
    title: 'Moonlight',
    words: 'night day for night',
    passes: [
      ['tone', { exposure: -1.1, contrast: 0.1, black: 0.02, darkColour: 0.5 }],
      ['tint', { strength: 0.55 }],
      ['vignette', { amount: -1 }],
    ],
  },
  {
    title: 'Crime film',
    words: 'teal orange thriller',
    passes: [
      ['tone', { contrast: 0.2, shoulder: 0.4, darkColour: 0.7 }],
      ['wheels', { lift: [-0.14, -0.12, 0.01], gain: [0.14, 0.1, 0] }],
      ['colour', { saturation: 0.8 }],
    ],
  },
  {
    title: 'Faded print',
    words: 'old matte film pale',
    passes: [
      ['wheels', { lift: [0.02, 0.04, 0.12], gain: [0.05, 0.06, -0.03] }],
      ['colour', { saturation: 0.75 }],
      ['grain', { amount: 0.03 }],
    ],
  },
  {
    title: 'Silver',
    words: 'black and white monochrome grey',
    passes: [
      ['colour', { saturation: 0 }],
      ['tone', { contrast: 0.22, shoulder: 0.3 }],
      ['grain', { amount: 0.04 }],
    ],
  },
  {
    title: 'Sepia',
    words: 'brown old photograph',
    passes: [
      [
        'tint',
        {
          colours: [
            [0, [0.06, 0.03, 0.01]],
            [0.5, [0.5, 0.38, 0.26]],
            [1, [1, 0.95, 0.84]],
          ],
          strength: 1,
          keep: false,
        },
      ],
      ['vignette', { amount: -1.2, soft: 0.9 }],
    ],
  },
  {
    title: 'Poster',
    words: 'strong colourful vivid pop',
    passes: [
      ['tone', { contrast: 0.15, fill: 0.2, shoulder: 0.35 }],
      ['colour', { vibrance: 0.7, saturation: 1.1 }],
    ],
  },
  {
    title: 'Fog',
    words: 'flat haze pale morning',
    passes: [
      ['tone', { contrast: -0.35, exposure: 0.3, shoulder: 0.6 }],
      ['wheels', { lift: [-0.02, 0, 0.22] }],
      ['colour', { saturation: 0.6 }],
    ],
  },
];
