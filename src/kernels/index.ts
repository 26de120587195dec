// Everything that runs once per pixel. Compiled to one WebAssembly module with SIMD; memory is the caller's.
export { widen, widenReduced, halve, narrow, fill, copy, matteSpan, meanRect } from './convert';
export { toYuv } from './yuv';
export { toLinearSpan, toDisplaySpan } from './light';
export { keyAlpha, keyUnmix } from './key';
export { guideTile } from './guide';
export { evenOut, screenCells } from './screen';
export { lumaKeySpan, hueKeySpan } from './range-key';
export { adjustSpan } from './adjust';
export { cropSpan } from './crop';
export { affine } from './affine';
export { projective } from './projective';
export { addScaled, coveragePlane, fillPlane, lerpByPlane, lerpSpan, scaleByPlane, timesPlane } from './mix';
export { besideMarks, colourFrom, coverBy, differencePlane, edgeMarks, extendNear, lendersOnly, lightWrap, pickByAlpha, unmixPlate } from './edge';
export { blurRows, blurColumns } from './blur';
export { blurNear } from './blur-near';
export { lumaPlane, halvePlane, flowLevel, flowBetween } from './flow';
export { blendSpan } from './blend';
export { colourByAlpha, growAlpha, rampFill } from './shape';
