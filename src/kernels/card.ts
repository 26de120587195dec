// Pictures on cards: where a picture lies, and what is drawn below and around it.

/** The most alpha of each column and of each row of a picture, as floats. */
export function mostAlpha(src: usize, w: i32, h: i32, columns: usize, rows: usize): void {
  memory.fill(columns, 0, <usize>w << 2);
  for (let y = 0; y < h; y++) {
    let most: f32 = 0;
    for (let x = 0; x < w; x++, src += 16) {
      const alpha = load<f32>(src, 12);
      if (alpha > most) most = alpha;
      const column = columns + (<usize>x << 2);
      if (alpha > load<f32>(column)) store<f32>(column, alpha);
    }
    store<f32>(rows + (<usize>y << 2), most);
  }
}

/**
 * One row of a picture on a rounded card with an edge: cut to the card, over its backing, its edge on top.
 * @param x centre of the first pixel, @param y centre of the row, both about the card's middle, so that it spans ±halfW, ±halfH
 * @param width of the edge, inside the card @param opacity of the backing; colours are straight
 */
export function cardSpan(
  src: usize, dst: usize, n: i32, x: f32, y: f32, halfW: f32, halfH: f32, radius: f32, width: f32,
  r: f32, g: f32, b: f32, opacity: f32, er: f32, eg: f32, eb: f32, edge: f32,
): void {
  const backing = f32x4(r * opacity, g * opacity, b * opacity, opacity);
  const line = f32x4(er, eg, eb, 1);
  const qy = abs(y) - halfH + radius;
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const qx = abs(x + <f32>i) - halfW + radius;
    const far: f32 = (qx <= 0 || qy <= 0 ? (qx > qy ? qx : qy) : sqrt(qx * qx + qy * qy)) - radius;
    const cover: f32 = min(max(<f32>0.5 - far, <f32>0), <f32>1);
    if (cover <= 0) {
      v128.store(dst, f32x4.splat(0));
      continue;
    }
    const own = v128.load(src);
    const behind = f32x4.splat(<f32>1 - f32x4.extract_lane(own, 3));
    const filled = f32x4.mul(f32x4.add(own, f32x4.mul(backing, behind)), f32x4.splat(cover));
    // what of the card is edge: all of it that is not within the inner rectangle
    const ring: f32 = max(cover - min(max(<f32>0.5 - far - width, <f32>0), <f32>1), <f32>0) * edge;
    v128.store(dst, f32x4.add(f32x4.mul(line, f32x4.splat(ring)), f32x4.mul(filled, f32x4.splat(<f32>1 - ring))));
  }
}
