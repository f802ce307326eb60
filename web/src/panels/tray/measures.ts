import type { Facts, Measure } from '../../api/client'
import { lengthSaid } from '../shared/lengths'

export function repeatText(x: Measure, unit: string): string {
  const p = x.pattern
  if (!p) return 'no pattern'
  return `${p.size.map((s) => lengthSaid(s, unit)).join(' × ')}${p.tiles ? '' : ', a seam may show'}`
}

export function sharpShort(x: Measure): string {
  const p = x.pattern
  if (!p) return 'sharp at any size'
  const density = `${Math.round(p.pixelsPerMetre).toLocaleString('en')} px/m`
  return `${density}, ${p.sharp ? 'sharp' : 'soft'} on this model`
}

/** Whether the pattern is sharp enough for the project's own size. */
export function sharpText(x: Measure, unit: string): string {
  const p = x.pattern
  if (!p) return 'at any size'
  const fit = p.sharp ? 'the whole model is sharp' : 'soft even with the whole model in view'
  return `${Math.round(p.pixelsPerMetre).toLocaleString('en')} px/m, sharp in views from ${lengthSaid(p.sharpFrom, unit)} wide; ${fit}`
}

/** What is known of a material besides its look, in words and numbers. */
export function factLines(f: Facts): [string, string][] {
  const all: [string, string][] = []
  if (f.substance) all.push(['Made of', f.substance])
  if (f.density !== null) all.push(['Density', `${f.density.toLocaleString('en')} kg/m³`])
  if (f.price) {
    const waste = f.waste === null ? '' : `, ${f.waste} % waste`
    all.push(['Price', `${f.price.toLocaleString('en')} per m²${waste}`])
  }
  if (f.carbon !== null) all.push(['Carbon', `${f.carbon} kg CO₂e per m²`])
  if (f.supplier || f.article) all.push(['Supplier', [f.supplier, f.article].filter(Boolean).join(', ')])
  if (f.source) all.push(['Source', f.source])
  if (f.licence) all.push(['Licence', f.licence])
  return all
}
