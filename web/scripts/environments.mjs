// Turns the CC0 surroundings pictures of @pmndrs/assets (EXR with DWAB compression) into Radiance HDR files and small
// PNG previews under public/environments. Runs before every build; files that this script made already are left alone.
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { deflateSync } from 'node:zlib'
import { FloatType } from 'three'
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js'

const FOLDER = new URL('../public/environments/', import.meta.url)
const PICTURES = { studio: 'studio', workshop: 'workshop', lobby: 'lobby', park: 'park', 'low-sun': 'dawn' }
const PREVIEW_WIDTH = 192
const WHITE = 0.72
const ADAPTED = 0.85 // of a light's tone, how much the eye takes off once it is used to it; all of it in the studio
const LOST = 0.03 // no light is of so saturated a colour
const BLACK = 1e-4 // and nothing in a photograph so dark
const BRIGHTEST = 65504 // what a half float holds; the sun's disc is beyond it

const STAMP = new URL('../target/environments', import.meta.url) // which script made them

mkdirSync(FOLDER, { recursive: true })
mkdirSync(new URL('.', STAMP), { recursive: true })
const script = createHash('sha256')
  .update(readFileSync(new URL(import.meta.url)))
  .digest('hex')
const isMade = existsSync(STAMP) && readFileSync(STAMP, 'utf8') === script
for (const [name, source] of Object.entries(PICTURES)) {
  const hdr = new URL(`${name}.hdr`, FOLDER)
  const png = new URL(`${name}.png`, FOLDER)
  if (isMade && existsSync(hdr) && existsSync(png)) continue
  const { default: encoded } = await import(`@pmndrs/assets/hdri/${source}.exr.js`)
  const bytes = Buffer.from(encoded.slice(encoded.indexOf(',') + 1), 'base64')
  const picture = new EXRLoader()
    .setDataType(FloatType)
    .parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length))
  const image = normalised(mended(upright(picture)), name === 'studio' ? 1 : ADAPTED)
  writeFileSync(hdr, radiance(image))
  writeFileSync(png, preview(image))
}
writeFileSync(STAMP, script)

/** The picture as RGB floats with its top row first. */
function upright({ width, height, data }) {
  const rgb = new Float32Array(width * height * 3)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      for (let k = 0; k < 3; k++) {
        const v = data[((height - 1 - y) * width + x) * 4 + k]
        rgb[(y * width + x) * 3 + k] = Number.isFinite(v) ? Math.min(BRIGHTEST, Math.max(0, v)) : BRIGHTEST
      }
    }
  }
  return { width, height, rgb }
}

/** Where nothing is left of two channels beside a third (a sun that came out pure blue) there is the glow around it instead. */
function mended({ width, height, rgb }) {
  const isLost = (i) => {
    const most = Math.max(rgb[i], rgb[i + 1], rgb[i + 2])
    return most < BLACK || rgb[i] + rgb[i + 1] + rgb[i + 2] - most < LOST * most
  }
  let lost = []
  for (let i = 0; i < rgb.length; i += 3) if (isLost(i)) lost.push(i)
  while (lost.length > 0) {
    const filled = lost.flatMap((i) => {
      const x = (i / 3) % width
      const y = Math.floor(i / 3 / width)
      const beside = []
      for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
        for (let u = x - 1; u <= x + 1; u++) beside.push(3 * (v * width + ((u + width) % width)))
      const sound = beside.filter((j) => !isLost(j))
      return sound.length > 0 ? [[i, [0, 1, 2].map((k) => mean(sound.map((j) => rgb[j + k])))]] : []
    })
    if (filled.length === 0) break
    for (const [i, colour] of filled) rgb.set(colour, i)
    lost = lost.filter(isLost)
  }
  return { width, height, rgb }
}

function mean(values) {
  return values.reduce((sum, v) => sum + v, 0) / values.length
}

/** Scaled so that a white matt surface, lit from all around, shows a mean of `WHITE`: strength 1 suits any picture. White
balanced as far as the eye adapts: what is left of the light's tone is told, and does not drown the colours. */
function normalised({ width, height, rgb }, adapted) {
  const sum = [0, 0, 0]
  let weights = 0
  for (let y = 0; y < height; y++) {
    const weight = Math.sin((Math.PI * (y + 0.5)) / height)
    for (let x = 0; x < width; x++) {
      const i = 3 * (y * width + x)
      for (let k = 0; k < 3; k++) sum[k] += weight * rgb[i + k]
      weights += weight
    }
  }
  const luminance = 0.2126 * sum[0] + 0.7152 * sum[1] + 0.0722 * sum[2]
  const tone = sum.map((s) => (luminance / s) ** adapted)
  const kept = 0.2126 * tone[0] * sum[0] + 0.7152 * tone[1] * sum[1] + 0.0722 * tone[2] * sum[2]
  const gain = tone.map((t) => (WHITE * weights * t) / kept)
  return { width, height, rgb: rgb.map((v, i) => v * gain[i % 3]) }
}

/** Radiance HDR (RGBE, uncompressed scanlines). */
function radiance({ width, height, rgb }) {
  const body = Buffer.alloc(width * height * 4)
  for (let i = 0; i < width * height; i++) {
    const largest = Math.max(rgb[3 * i], rgb[3 * i + 1], rgb[3 * i + 2])
    if (largest < 1e-32) continue
    const exponent = Math.floor(Math.log2(largest)) + 1
    const scale = 256 / 2 ** exponent
    for (let k = 0; k < 3; k++) body[4 * i + k] = Math.min(255, Math.floor(rgb[3 * i + k] * scale))
    body[4 * i + 3] = exponent + 128
  }
  return Buffer.concat([
    Buffer.from(`#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`),
    body,
  ])
}

/** A small picture, each pixel the mean of the area it stands for, exposed so that the mean is a middle grey. */
function preview({ width, height, rgb }) {
  const step = Math.floor(width / PREVIEW_WIDTH)
  const w = Math.floor(width / step)
  const h = Math.floor(height / step)
  const small = new Float32Array(w * h * 3)
  for (let y = 0; y < h * step; y++) {
    for (let x = 0; x < w * step; x++) {
      for (let k = 0; k < 3; k++) {
        small[(Math.floor(y / step) * w + Math.floor(x / step)) * 3 + k] +=
          rgb[(y * width + x) * 3 + k] / step ** 2
      }
    }
  }
  const logs = small.reduce((sum, v) => sum + Math.log(v + 1e-3), 0) / small.length
  const rows = Buffer.alloc(h * (w * 3 + 1))
  for (let y = 0; y < h; y++) {
    for (let i = 0; i < w * 3; i++) {
      const v = (small[y * w * 3 + i] * 0.25) / Math.exp(logs)
      rows[y * (w * 3 + 1) + 1 + i] = Math.round(255 * (v / (1 + v)) ** (1 / 2.2))
    }
  }
  return png(w, h, rows)
}

function png(width, height, rows) {
  const head = Buffer.alloc(13)
  head.writeUInt32BE(width, 0)
  head.writeUInt32BE(height, 4)
  head.set([8, 2, 0, 0, 0], 8)
  return Buffer.concat([
    Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ])
}

function chunk(type, data) {
  const out = Buffer.alloc(12 + data.length)
  out.writeUInt32BE(data.length, 0)
  out.write(type, 4)
  data.copy(out, 8)
  out.writeUInt32BE(crc(out.subarray(4, 8 + data.length)), 8 + data.length)
  return out
}

function crc(bytes) {
  let c = ~0
  for (const b of bytes) {
    c ^= b
    for (let k = 0; k < 8; k++) c = (c >>> 1) ^ (0xedb88320 & -(c & 1))
  }
  return ~c >>> 0
}
