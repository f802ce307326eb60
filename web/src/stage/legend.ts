import type { Mark } from './plainColours'

/** A line of a legend: a mark and what it stands for. */
export interface Entry extends Mark {
  name: string
}

const FONT = 'Hanken Grotesk Variable, sans-serif'
/** Shares of a picture's shorter side. */
const LETTER = 0.02
const MOST = 24

/** Along which directions the lines of each hatch run, in degrees; as on the stage. */
const LINES = [[], [-45], [45], [90], [0], [0, 90]]

/** A picture with a legend on a light ground in its lower left corner; of very many things the first ones. */
export async function captioned(picture: Blob, entries: Entry[]): Promise<Blob> {
  const image = await createImageBitmap(picture)
  const canvas = new OffscreenCanvas(image.width, image.height)
  const context = canvas.getContext('2d')
  if (!context) throw new Error('no picture')
  context.drawImage(image, 0, 0)
  image.close()
  const letter = Math.max(9, LETTER * Math.min(canvas.width, canvas.height))
  const line = 1.6 * letter
  const listed = entries.slice(0, Math.min(MOST, Math.floor((0.9 * canvas.height) / line)))
  context.font = `${letter}px ${FONT}`
  context.textBaseline = 'middle'
  const widest = Math.max(...listed.map((e) => context.measureText(e.name).width))
  const swatch = 2 * letter
  const width = widest + swatch + 3 * letter
  const height = line * listed.length + letter
  const top = canvas.height - height - letter
  context.fillStyle = '#faf9f7eb'
  context.fillRect(letter, top, width, height)
  listed.forEach((entry, i) => {
    const y = top + 0.5 * letter + line * (i + 0.5)
    drawMark(context, entry, 2 * letter, y - 0.5 * letter, swatch, letter)
    context.fillStyle = '#1e1d1b'
    context.fillText(entry.name, 3 * letter + swatch, y)
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
  for (const way of LINES[hatch] ?? []) {
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
