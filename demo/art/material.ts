// Felt and card as SVG filters: a noise relief lit from the upper left, and slightly uneven cut edges.

/** Fuzzy wool felt. */
export const felt = (id: string, seed: number, strength = 1.6) => `
<filter id="${id}" x="-5%" y="-5%" width="110%" height="110%" color-interpolation-filters="sRGB">
  <feTurbulence type="fractalNoise" baseFrequency="0.32" numOctaves="3" seed="${seed}" result="fibre"/>
  <feDisplacementMap in="SourceGraphic" in2="fibre" scale="4" xChannelSelector="R" yChannelSelector="G" result="cut"/>
  <feTurbulence type="fractalNoise" baseFrequency="0.11 0.17" numOctaves="4" seed="${seed + 7}" result="nap"/>
  <feDiffuseLighting in="nap" surfaceScale="${strength}" diffuseConstant="1.06" lighting-color="#fff" result="lit">
    <feDistantLight azimuth="225" elevation="62"/>
  </feDiffuseLighting>
  <feGaussianBlur in="cut" stdDeviation="6" result="round"/>
  <feDiffuseLighting in="round" surfaceScale="5" diffuseConstant="1.12" lighting-color="#fff" result="bulge">
    <feDistantLight azimuth="235" elevation="60"/>
  </feDiffuseLighting>
  <feComposite in="cut" in2="lit" operator="arithmetic" k1="1.08" result="woolly"/>
  <feComposite in="woolly" in2="bulge" operator="arithmetic" k1="1.02" result="formed"/>
  <feComposite in="formed" in2="cut" operator="in"/>
</filter>`;

/** Paper or card with grain and a thin lit edge. */
export const card = (id: string, seed: number, grain = 0.9) => `
<filter id="${id}" x="-5%" y="-5%" width="110%" height="110%" color-interpolation-filters="sRGB">
  <feTurbulence type="fractalNoise" baseFrequency="0.035" numOctaves="2" seed="${seed}" result="wobble"/>
  <feDisplacementMap in="SourceGraphic" in2="wobble" scale="5" xChannelSelector="R" yChannelSelector="G" result="cut"/>
  <feTurbulence type="fractalNoise" baseFrequency="0.7 0.5" numOctaves="3" seed="${seed + 3}" result="pulp"/>
  <feDiffuseLighting in="pulp" surfaceScale="${grain}" diffuseConstant="1.1" lighting-color="#fff" result="lit">
    <feDistantLight azimuth="225" elevation="64"/>
  </feDiffuseLighting>
  <feGaussianBlur in="cut" stdDeviation="1.1" result="edge"/>
  <feDiffuseLighting in="edge" surfaceScale="2.2" diffuseConstant="1.12" lighting-color="#fff" result="rim">
    <feDistantLight azimuth="230" elevation="62"/>
  </feDiffuseLighting>
  <feComposite in="cut" in2="lit" operator="arithmetic" k1="1.04" result="paper"/>
  <feComposite in="paper" in2="rim" operator="arithmetic" k1="1.02" result="formed"/>
  <feComposite in="formed" in2="cut" operator="in"/>
</filter>`;

export const svg = (w: number, h: number, body: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}">${body}</svg>`;

/** A shape made of one material: `body` drawn with a filter. */
export const piece = (w: number, h: number, filter: string, body: string, defs = '') =>
  svg(w, h, `<defs>${filter}${defs}</defs><g filter="url(#m)">${body}</g>`);
