import { WAYS, type Mark } from './plainColours'

/** A line of a legend: a mark and what it stands for. */
export interface Entry extends Mark {
  name: string
}

const FONT = 'Hanken Grotesk Variable, sans-serif'
/** The height of a letter, as a share of a picture's shorter side, and at least, in pixels. */
const LETTER = 0.02
const LEAST = 9
const LINE = 1.6 // letters
const MOST = 24

/**
 * What fits into a legend of so many lines: of more, the first ones, and how many more there are.
 */
export function fitting(entries: Entry[], lines: number): { shown: Entry[]; more: number } {
  const most = Math.max(1, Math.min(MOST, lines))
  if (entries.length <= most) return { shown: entries, more: 0 }
  return { shown: entries.slice(0, most - 1), more: entries.length - most + 1 }
}

/** A picture with a legend on a light ground in its lower left corner. */
export async function captioned(picture: Blob, entries: Entry[]): Promise<Blob> {
  const image = await createImageBitmap(picture)
  const canvas = new OffscreenCanvas(image.width, image.height)
  const context = canvas.getContext('2d')
  if (!context) throw new Error('no picture')
  context.drawImage(image, 0, 0)
  image.close()
  const letter = Math.max(LEAST, LETTER * Math.min(canvas.width, canvas.height))
  const line = LINE * letter
  const { shown, more } = fitting(entries, Math.floor((canvas.height - 3 * letter) / line))
  const last = more > 0 ? [`and ${more} more`] : []
  context.font = `${letter}px ${FONT}`
  context.textBaseline = 'middle'
  const texts = [...shown.map((e) => e.name), ...last]
  const swatch = 2 * letter
  const width = Math.max(...texts.map((t) => context.measureText(t).width)) + swatch + 3 * letter
  const height = line * texts.length + letter
  const top = canvas.height - height - letter
  context.fillStyle = '#faf9f7eb'
  context.fillRect(letter, top, width, height)
  texts.forEach((text, i) => {
    const y = top + 0.5 * letter + line * (i + 0.5)
    const entry = shown[i]
    if (entry) drawMark(context, entry, 2 * letter, y - 0.5 * letter, swatch, letter)
    context.fillStyle = '#1e1d1b'
    context.fillText(text, 3 * letter + swatch, y)
  })
  return canvas.convertToBlob({ type: 'image/png' })
}

function drawMark(
  context: OffscreenCanvasRenderingContext2D,
  { colour, hatch }: Mark,
  x: number,
  y: number,
  width: number,
  height: number,
): void {
  context.save()
  context.beginPath()
  context.rect(x, y, width, height)
  context.clip()
  context.fillStyle = colour
  context.fillRect(x, y, width, height)
  context.strokeStyle = '#0009'
  context.lineWidth = height / 8
  for (const way of WAYS[hatch] ?? []) {
    context.save()
    context.translate(x + width / 2, y + height / 2)
    context.rotate((way * Math.PI) / 180)
    for (let at = -width; at <= width; at += height / 2.5) {
      context.beginPath()
      context.moveTo(-width, at)
      context.lineTo(width, at)
      context.stroke()
    }
    context.restore()
  }
  context.restore()
}
