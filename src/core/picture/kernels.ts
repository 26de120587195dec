import { Arena } from './arena';

/** What src/kernels exports. Addresses are bytes into the arena; n counts pixels of 16 bytes (float32 RGBA, premultiplied). */
export interface Kernels {
  widen(src: number, dst: number, n: number): void;
  widenReduced(src: number, sw: number, sh: number, dst: number, factor: number): void;
  halve(src: number, sw: number, sh: number, dst: number): void;
  narrow(src: number, dst: number, n: number): void;
  fromYuv(
    y: number,
    u: number,
    v: number,
    a: number,
    w: number,
    h: number,
    step: number,
    factor: number,
    matrix: number,
    dst: number,
    scratch: number,
  ): void;
  toYuv(src: number, w: number, h: number, y: number, u: number, v: number, a: number): void;
  growPlane(plane: number, w: number, h: number, r: number, scratch: number): void;
  colourByAlpha(at: number, n: number, r: number, g: number, b: number, opacity: number): void;
  rampFill(
    dst: number,
    w: number,
    h: number,
    round: number,
    ax: number,
    ay: number,
    bx: number,
    by: number,
    ramp: number,
    steps: number,
  ): void;
  overPlane(at: number, plane: number, n: number, r: number, g: number, b: number, alone: number): void;
  lineDistance(
    lines: number,
    count: number,
    w: number,
    h: number,
    limit: number,
    distance: number,
    nearest: number,
  ): void;
  carryAlong(lines: number, ends: number, nearest: number, w: number, h: number, out: number): void;
  halfWayLines(plane: number, w: number, h: number, out: number): number;
  movedEdge(plane: number, distance: number, n: number, grow: number, feather: number, soft: number): void;
  insidePlane(matte: number, distance: number, n: number, out: number): void;
  ringPlane(
    inside: number,
    n: number,
    from: number,
    width: number,
    outer: number,
    inner: number,
    opacity: number,
    out: number,
  ): void;
  rampPlane(dst: number, n: number, from: number, width: number): void;
  tablePlane(dst: number, n: number, table: number, steps: number): void;
  overrule(dst: number, plane: number, n: number, clear: number): void;
  joinMask(sum: number, mask: number, n: number, mode: number, invert: number, opacity: number): void;
  blurPlane(plane: number, w: number, h: number, r: number, ends: number, count: number, scratch: number): void;
  leastInDisc(plane: number, w: number, h: number, radius: number, sign: number, out: number, scratch: number): void;
  clearPatches(
    plane: number,
    w: number,
    h: number,
    most: number,
    limit: number,
    above: number,
    to: number,
    scratch: number,
  ): void;
  spotsScratch(w: number, h: number): number;
  dropSpots(
    plane: number,
    w: number,
    h: number,
    limit: number,
    faint: number,
    most: number,
    to: number,
    scratch: number,
  ): void;
  linearPlane(
    dst: number,
    w: number,
    h: number,
    x: number,
    y: number,
    dx: number,
    dy: number,
    grow: number,
    feather: number,
  ): void;
  linePlane(
    dst: number,
    w: number,
    h: number,
    x: number,
    y: number,
    c: number,
    s: number,
    grow: number,
    feather: number,
  ): void;
  radialPlane(
    dst: number,
    w: number,
    h: number,
    x: number,
    y: number,
    c: number,
    s: number,
    rx: number,
    ry: number,
    core: number,
  ): void;
  capsule(
    plane: number,
    w: number,
    x0: number,
    y0: number,
    x1: number,
    y1: number,
    ax: number,
    ay: number,
    ar: number,
    bx: number,
    by: number,
    br: number,
    hardness: number,
  ): void;
  joinStroke(
    plane: number,
    own: number,
    w: number,
    x0: number,
    y0: number,
    x1: number,
    y1: number,
    opacity: number,
    erase: number,
  ): void;
  stretchedPlane(
    src: number,
    sw: number,
    sh: number,
    dst: number,
    w: number,
    h: number,
    x: number,
    y: number,
    sx: number,
    sy: number,
  ): void;
  fill(dst: number, n: number, r: number, g: number, b: number, a: number): void;
  copy(src: number, dst: number, n: number): void;
  unlikeCells(a: number, b: number, w: number, h: number, squares: number, means: number): void;
  likeCells(
    squares: number,
    means: number,
    wide: number,
    tall: number,
    allSquares: number,
    noSquares: number,
    allMeans: number,
    noMeans: number,
    out: number,
    work: number,
  ): void;
  addByCells(other: number, n: number, above: number, below: number, share: number, sum: number): void;
  divideByCells(n: number, above: number, below: number, share: number, sum: number): void;
  matteSpan(src: number, dst: number, n: number): void;
  medianBytes(rows: number, length: number, count: number, out: number): void;
  channelBytes(src: number, n: number, brightness: number, out: number): void;
  veilSpan(src: number, dst: number, n: number, r: number, g: number, b: number, a: number): void;
  meanRect(src: number, width: number, x: number, y: number, w: number, h: number, out: number): void;
  toLinearSpan(at: number, n: number): void;
  toDisplaySpan(at: number, n: number): void;
  keyAlpha(src: number, n: number, alpha: number, luma: number, params: number, grid: number): void;
  carryScratch(w: number, h: number): number;
  carryOn(cells: number, w: number, h: number, rounds: number, scratch: number): void;
  screenGrid(
    cells: number,
    w: number,
    h: number,
    channel: number,
    first: number,
    second: number,
    least: number,
    grid: number,
  ): void;
  screenCells(src: number, w: number, h: number, channel: number, samples: number, near: number, out: number): void;
  sureMarks(
    plane: number,
    w: number,
    h: number,
    offset: number,
    gain: number,
    solid: number,
    clear: number,
    deep: number,
    marks: number,
    scratch: number,
  ): void;
  edgeWidth(plane: number, w: number, h: number, offset: number, gain: number): number;
  sureCells(src: number, marks: number, w: number, h: number, kinds: number, out: number): void;
  fitRow(
    src: number,
    n: number,
    matte: number,
    above: number,
    below: number,
    gain: number,
    marks: number,
    out: number,
    subject: number,
    subjectStray: number,
    screen: number,
    screenStray: number,
    plate: number,
  ): void;
  limitRim(
    at: number,
    n: number,
    marks: number,
    inside: number,
    stray: number,
    channel: number,
    strength: number,
  ): void;
  marksScratch(w: number, h: number): number;
  spreadCells(cells: number, w: number, h: number, scratch: number): boolean;
  cellGrids(cells: number, w: number, h: number, means: number, variances: number): void;
  nearBoth(
    cut: number,
    marks: number,
    w: number,
    h: number,
    offset: number,
    gain: number,
    r: number,
    near: number,
    scratch: number,
  ): void;
  towardsMarked(
    out: number,
    other: number,
    marks: number,
    n: number,
    offset: number,
    gain: number,
    share: number,
  ): void;
  evenPlane(plane: number, w: number, h: number, out: number): void;
  guideScratch(r: number): number;
  guidePlane(
    alpha: number,
    luma: number,
    out: number,
    w: number,
    h: number,
    wanted: number,
    r: number,
    eps: number,
    offset: number,
    gain: number,
    scratch: number,
  ): void;
  keyUnmix(
    src: number,
    dst: number,
    n: number,
    alphas: number,
    params: number,
    grid: number,
    subject: number,
    subjectStray: number,
    screenStray: number,
  ): void;
  lightWrap(at: number, under: number, soft: number, n: number, strength: number): void;
  edgeMarks(at: number, n: number, marks: number): void;
  besideMarks(marks: number, w: number, h: number): void;
  extendNear(at: number, w: number, h: number, r: number, marks: number, channel: number): void;
  coverBy(src: number, plane: number, dst: number, n: number): void;
  lendersOnly(src: number, marks: number, dst: number, n: number): void;
  colourFrom(at: number, other: number, marks: number, n: number, channel: number): void;
  pickByAlpha(a: number, b: number, dst: number, n: number, more: number): void;
  differencePlane(a: number, b: number, n: number, dst: number): void;
  unmixPlate(src: number, plate: number, plane: number, dst: number, n: number): void;
  lumaKeySpan(src: number, dst: number, n: number, table: number, steps: number, grey: number): void;
  hueKeySpan(
    src: number,
    dst: number,
    n: number,
    table: number,
    steps: number,
    from: number,
    to: number,
    keep: number,
  ): void;
  adjustSpan(src: number, dst: number, n: number, tables: number, steps: number, saturation: number): void;
  lightMatrixSpan(src: number, dst: number, n: number, m: number): void;
  latticeSpan(src: number, dst: number, n: number, table: number, size: number, domain: number, strength: number): void;
  matrixSpan(src: number, dst: number, n: number, m: number): void;
  byLumaSpan(src: number, dst: number, n: number, gains: number, saturations: number, steps: number): void;
  byHueSpan(
    src: number,
    dst: number,
    n: number,
    turns: number,
    saturations: number,
    gains: number,
    bySaturation: number,
    steps: number,
  ): void;
  toneSpan(src: number, dst: number, n: number, table: number, steps: number, keep: number): void;
  colourRangePlane(
    src: number,
    n: number,
    hues: number,
    saturations: number,
    lumas: number,
    steps: number,
    out: number,
  ): void;
  vignetteSpan(
    src: number,
    dst: number,
    n: number,
    x: number,
    y: number,
    cx: number,
    cy: number,
    rx: number,
    ry: number,
    cos: number,
    sin: number,
    square: number,
    table: number,
    steps: number,
  ): void;
  cropSpan(
    src: number,
    dst: number,
    n: number,
    x: number,
    y: number,
    halfW: number,
    halfH: number,
    radius: number,
    feather: number,
  ): void;
  mostAlpha(src: number, w: number, h: number, columns: number, rows: number): void;
  cardSpan(
    src: number,
    dst: number,
    n: number,
    x: number,
    y: number,
    halfW: number,
    halfH: number,
    radius: number,
    width: number,
    r: number,
    g: number,
    b: number,
    opacity: number,
    er: number,
    eg: number,
    eb: number,
    edge: number,
  ): void;
  rampSpan(src: number, dst: number, n: number, at: number, step: number): void;
  slatSpan(
    src: number,
    dst: number,
    n: number,
    at: number,
    step: number,
    open: number,
    soft: number,
    pixel: number,
  ): void;
  irisSpan(
    src: number,
    dst: number,
    n: number,
    x: number,
    y: number,
    stepX: number,
    stepY: number,
    form: number,
    radius: number,
    soft: number,
  ): void;
  sweepSpan(
    src: number,
    dst: number,
    n: number,
    x: number,
    y: number,
    stepX: number,
    stepY: number,
    sin: number,
    cos: number,
    wide: number,
    soft: number,
  ): void;
  byBrightnessSpan(src: number, dst: number, n: number, edge: number, soft: number, dark: number): void;
  crumbleSpan(
    src: number,
    dst: number,
    n: number,
    x: number,
    y: number,
    step: number,
    seed: number,
    edge: number,
    soft: number,
  ): void;
  tornSpan(
    src: number,
    dst: number,
    n: number,
    across: number,
    along: number,
    stepAcross: number,
    stepAlong: number,
    rough: number,
    rim: number,
    seed: number,
    red: number,
    green: number,
    blue: number,
  ): void;
  channelsOf(red: number, green: number, blue: number, dst: number, n: number): void;
  meanBlock(src: number, dst: number, w: number, x: number, y: number, bw: number, bh: number): void;
  stepSpan(src: number, dst: number, n: number, last: number, soft: number): void;
  dimSpan(src: number, dst: number, n: number, gain: number): void;
  sumsRow(src: number, dst: number, n: number): void;
  spanRow(sums: number, dst: number, n: number, left: number, right: number, share: number): void;
  liftBright(at: number, n: number, from: number, more: number): void;
  limitSpan(at: number, n: number): void;
  tapeRow(
    src: number,
    wide: number,
    first: number,
    dst: number,
    n: number,
    moved: number,
    colour: number,
    bleed: number,
  ): void;
  dropOut(at: number, first: number, end: number, long: number, level: number): void;
  medianOf(list: number, count: number, room: number, dst: number, n: number): void;
  steepRow(above: number, at: number, below: number, dst: number, n: number): void;
  screenPlane(at: number, plane: number, n: number, r: number, g: number, b: number): void;
  dotSpan(
    src: number,
    dst: number,
    n: number,
    x: number,
    y: number,
    c: number,
    s: number,
    inkRed: number,
    inkGreen: number,
    inkBlue: number,
    paperRed: number,
    paperGreen: number,
    paperBlue: number,
  ): void;
  sheetOf(src: number, w: number, h: number, dst: number): number;
  drawSprites(
    list: number,
    n: number,
    which: number,
    sheets: number,
    dst: number,
    w: number,
    from: number,
    to: number,
    light: number,
  ): void;
  drawSwarm(
    list: number,
    n: number,
    form: number,
    dst: number,
    w: number,
    from: number,
    to: number,
    light: number,
  ): void;
  weighedPlane(src: number, dst: number, n: number, r: number, g: number, b: number, a: number): void;
  seenBox(src: number, w: number, h: number, dst: number): void;
  solidWork(n: number, w: number, h: number): number;
  drawSolid(
    list: number,
    n: number,
    dst: number,
    w: number,
    h: number,
    looks: number,
    materials: number,
    lights: number,
    cx: number,
    cy: number,
    eye: number,
    work: number,
  ): void;
  shiftPair(
    src: number,
    dst: number,
    w: number,
    h: number,
    dx1: number,
    dy1: number,
    one: number,
    dx2: number,
    dy2: number,
    two: number,
    extend: number,
  ): void;
  enlargeAdd(
    src: number,
    w: number,
    h: number,
    times: number,
    dst: number,
    step: number,
    left: number,
    top: number,
    dw: number,
    dh: number,
    weight: number,
  ): void;
  affine(
    src: number,
    sw: number,
    sh: number,
    dst: number,
    dw: number,
    dh: number,
    a: number,
    b: number,
    c: number,
    d: number,
    e: number,
    f: number,
    opacity: number,
    extend: number,
  ): void;
  projective(
    src: number,
    sw: number,
    sh: number,
    dst: number,
    dw: number,
    dh: number,
    m: number,
    opacity: number,
  ): void;
  noisePlane(
    dst: number,
    w: number,
    h: number,
    x: number,
    y: number,
    z: number,
    dx: number,
    dy: number,
    seed: number,
  ): void;
  addCoarse(
    coarse: number,
    wide: number,
    step: number,
    fromX: number,
    fromY: number,
    dst: number,
    w: number,
    h: number,
    weight: number,
    veins: number,
  ): void;
  tableColours(plane: number, dst: number, n: number, low: number, high: number, table: number, steps: number): void;
  bandSpan(
    at: number,
    other: number,
    n: number,
    first: number,
    step: number,
    aside: number,
    from: number,
    per: number,
  ): void;
  drawBits(list: number, n: number, dst: number, dw: number, dh: number): void;
  aboutRow(dx: number, dy: number, n: number, x: number, y: number, table: number, steps: number, per: number): void;
  slopeSpan(dst: number, n: number, first: number, step: number): void;
  displacedRow(
    src: number,
    w: number,
    h: number,
    dst: number,
    n: number,
    x: number,
    y: number,
    dx: number,
    dy: number,
    amount: number,
  ): void;
  brightSpan(
    src: number,
    dst: number,
    n: number,
    threshold: number,
    knee: number,
    r: number,
    g: number,
    b: number,
  ): void;
  lightRow(under: number, light: number, n: number, strength: number, alone: number, x: number, y: number): void;
  addScaled(src: number, dst: number, n: number, weight: number): void;
  lerpSpan(a: number, b: number, dst: number, n: number, t: number): void;
  coveragePlane(src: number, n: number, byBrightness: number, invert: number, dst: number): void;
  scaleByPlane(src: number, plane: number, dst: number, n: number): void;
  lerpByPlane(a: number, b: number, plane: number, dst: number, n: number): void;
  fillPlane(dst: number, n: number, v: number): void;
  timesPlane(dst: number, plane: number, n: number): void;
  lumaPlane(src: number, n: number, dst: number): void;
  grainNoise(dst: number, n: number, x: number, y: number, seed: number): void;
  grainSpan(
    src: number,
    noise: number,
    dst: number,
    n: number,
    own: number,
    all: number,
    dark: number,
    middle: number,
    bright: number,
    red: number,
    green: number,
    blue: number,
  ): void;
  sharpenSpan(src: number, soft: number, dst: number, n: number, strength: number, quiet: number, most: number): void;
  halvePlane(src: number, w: number, h: number, dst: number): void;
  flowLevel(
    a: number,
    b: number,
    w: number,
    h: number,
    coarse: number,
    flow: number,
    patches: number,
    weights: number,
  ): void;
  flowBetween(
    a: number,
    b: number,
    out: number,
    w: number,
    h: number,
    there: number,
    back: number,
    fw: number,
    fh: number,
    scale: number,
    t: number,
  ): void;
  bytesPlane(src: number, n: number, dst: number): void;
  makeHoles(looked: number, n: number, plane: number): void;
  rgbaPlane(src: number, n: number, dst: number): void;
  seePattern(plane: number, w: number, h: number, map: number, pw: number, ph: number, near: number, out: number): void;
  matchStep(
    plane: number,
    w: number,
    h: number,
    map: number,
    pattern: number,
    pw: number,
    ph: number,
    kind: number,
    windowed: number,
    stray: number,
    seen: number,
    out: number,
  ): void;
  matchSearch(
    plane: number,
    w: number,
    h: number,
    map: number,
    pattern: number,
    pw: number,
    ph: number,
    windowed: number,
    reach: number,
    taken: number,
    seen: number,
    out: number,
    scores: number,
  ): void;
  cornerPlane(plane: number, w: number, h: number, r: number, out: number): void;
  blurRows(
    src: number,
    dst: number,
    w: number,
    h: number,
    r: number,
    ends1: number,
    ends2: number,
    ends3: number,
    extend: number,
    scratch: number,
  ): void;
  blurNear(
    src: number,
    dst: number,
    w: number,
    h: number,
    r: number,
    weights: number,
    extend: number,
    scratch: number,
  ): void;
  blurColumns(
    at: number,
    w: number,
    h: number,
    r: number,
    ends1: number,
    ends2: number,
    ends3: number,
    extend: number,
    scratch: number,
  ): void;
  blendSpan(mode: number, under: number, top: number, n: number): void;
}

/** Kernels bound to an arena's memory. */
export async function bindKernels(module: WebAssembly.Module, arena: Arena): Promise<Kernels> {
  const abort = () => {
    throw new Error('kernel aborted');
  };
  const instance = await WebAssembly.instantiate(module, { env: { memory: arena.memory, abort } });
  return instance.exports as unknown as Kernels;
}
