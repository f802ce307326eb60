/**
 * What the halved copies of a picture of normals leave out: they lie flatter than it does, so that relief too fine to be seen
 * would polish what it should roughen. The tracer keeps that by pixel; here it is one number a copy, since relief repeats.
 */

/** So many copies are told of, from the picture itself on. */
export const RELIEF_LEVELS = 12
/** So much of a picture is looked at, in pixels along a side. */
const LOOKED_AT = 512
const STEEPEST = 0.1

const known = new WeakMap<ImageBitmap, Float32Array>()

/** How far slopes spread within a pixel of each copy of a picture, as standard deviation along one axis. */
export function spreadsOf(image: ImageBitmap): Float32Array {
  let spreads = known.get(image)
  if (!spreads) {
    const width = Math.min(LOOKED_AT, image.width)
    const height = Math.min(LOOKED_AT, image.height)
    const paper = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })
    if (!paper) return new Float32Array(RELIEF_LEVELS)
    paper.drawImage(image, 0, 0)
    spreads = spreadsIn(paper.getImageData(0, 0, width, height).data, width, height)
    known.set(image, spreads)
  }
  return spreads
}

/** @param rgba four codes a pixel, of which the first three are a normal */
export function spreadsIn(rgba: ArrayLike<number>, width: number, height: number): Float32Array {
  let x = new Float32Array(width * height)
  let y = new Float32Array(width * height)
  let whole = 0
  for (let i = 0; i < x.length; i++) {
    const up = Math.max(STEEPEST, (rgba[4 * i + 2] ?? 0) / 127.5 - 1)
    const a = ((rgba[4 * i] ?? 0) / 127.5 - 1) / up
    const b = ((rgba[4 * i + 1] ?? 0) / 127.5 - 1) / up
    x[i] = a
    y[i] = b
    whole += (a * a + b * b) / x.length
  }
  const spreads = new Float32Array(RELIEF_LEVELS)
  let [w, h] = [width, height]
  for (let level = 1; level < RELIEF_LEVELS; level++) {
    const [nw, nh] = [Math.max(1, w >> 1), Math.max(1, h >> 1)]
    const [fewerX, fewerY] = [new Float32Array(nw * nh), new Float32Array(nw * nh)]
    let kept = 0
    for (let i = 0; i < nw * nh; i++) {
      const left = 2 * (i % nw)
      const top = 2 * Math.floor(i / nw)
      const right = Math.min(w - 1, left + 1)
      const bottom = Math.min(h - 1, top + 1)
      const four = [top * w + left, top * w + right, bottom * w + left, bottom * w + right]
      let [a, b] = [0, 0]
      for (const k of four) {
        a += (x[k] ?? 0) / 4
        b += (y[k] ?? 0) / 4
      }
      fewerX[i] = a
      fewerY[i] = b
      kept += (a * a + b * b) / (nw * nh)
    }
    spreads[level] = Math.sqrt(Math.max(0, whole - kept) / 2)
    ;[x, y, w, h] = [fewerX, fewerY, nw, nh]
  }
  return spreads
}
