// Everything that runs once per pixel. Compiled to one WebAssembly module with SIMD; memory is the caller's.
export {
  widen,
  widenReduced,
  halve,
  narrow,
  fill,
  copy,
  matteSpan,
  meanRect,
  medianBytes,
  channelBytes,
  veilSpan,
} from './convert';
export { toYuv } from './yuv';
export { fromYuv } from './from-yuv';
export { toLinearSpan, toDisplaySpan } from './light';
export { keyAlpha, keyUnmix } from './key';
export { evenPlane, guidePlane, guideScratch } from './guide';
export { fitRow, sureCells } from './fit';
export { edgeWidth, marksScratch, nearBoth, sureMarks, towardsMarked } from './sure';
export { limitRim } from './rim';
export { cellGrids, spreadCells } from './cells';
export { carryOn, carryScratch, screenCells, screenGrid } from './screen';
export { lumaKeySpan, hueKeySpan } from './range-key';
export { adjustSpan } from './adjust';
export { latticeSpan } from './cube';
export { byHueSpan, byLumaSpan, colourRangePlane, lightMatrixSpan, matrixSpan, toneSpan, vignetteSpan } from './grade';
export { cropSpan, seenBox } from './crop';
export { brightSpan, lightRow, screenPlane } from './shine';
export { aboutRow, slopeSpan } from './bend';
export { drawBits } from './bits';
export { addCoarse, displacedRow, noisePlane, tableColours } from './clouds';
export { cardSpan, mostAlpha } from './card';
export { byBrightnessSpan, crumbleSpan, irisSpan, rampSpan, slatSpan, sweepSpan, tornSpan } from './reveal';
export { affine } from './affine';
export { enlargeAdd, shiftPair } from './shift';
export { channelsOf, dimSpan, dotSpan, meanBlock, steepRow, stepSpan } from './print';
export { projective } from './projective';
export { addScaled, bandSpan, coveragePlane, fillPlane, lerpByPlane, lerpSpan, medianOf, scaleByPlane, timesPlane, weighedPlane } from './mix';
export { besideMarks, colourFrom, coverBy, differencePlane, edgeMarks, extendNear, lendersOnly, lightWrap, pickByAlpha, unmixPlate } from './edge';
export { blurRows, blurColumns } from './blur';
export { blurNear } from './blur-near';
export { grainNoise, grainSpan } from './grain';
export { sharpenSpan } from './sharpen';
export { lumaPlane, halvePlane, flowLevel, flowBetween } from './flow';
export { bytesPlane, cornerPlane, makeHoles, matchSearch, matchStep, rgbaPlane, seePattern } from './track';
export { blendSpan } from './blend';
export { colourByAlpha, growPlane, overPlane, rampFill } from './shape';
export { carryAlong, halfWayLines, insidePlane, lineDistance, movedEdge, ringPlane } from './distance';
export { blurPlane, clearPatches, dropSpots, joinMask, leastInDisc, overrule, rampPlane, spotsScratch, tablePlane } from './plane';
export { drawSprites, sheetOf } from './sprites';
export { drawSwarm } from './swarm';
export { drawSolid, solidWork } from './solid';
export { liftBright, limitSpan, spanRow, sumsRow } from './aperture';
export { dropOut, tapeRow } from './tape';
export { capsule, joinStroke, linePlane, linearPlane, radialPlane, stretchedPlane } from './formula';
export { unlikeCells, likeCells, addByCells, divideByCells } from './calm';
