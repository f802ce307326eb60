const FOOT = 0.3048
const SQUARE_FOOT = FOOT ** 2

function said(value: number, decimals: number): string {
  return value.toLocaleString('en', { minimumFractionDigits: decimals, maximumFractionDigits: decimals })
}

/** A length given in metres, as somebody reads it who works in a unit of length: as core's LengthText writes it. */
export function lengthSaid(metres: number, unit = 'm'): string {
  const size = Math.abs(metres)
  if (unit === 'in' || unit === 'ft')
    return size < 10 * FOOT
      ? `${said(metres / 0.0254, size < 0.0254 ? 3 : 2)} in`
      : `${said(metres / FOOT, 1)} ft`
  if (size >= 10 || (unit === 'm' && size >= 0.1)) return `${said(metres, size >= 10 ? 1 : 2)} m`
  if (unit === 'cm' && size >= 0.01) return `${said(100 * metres, 1)} cm`
  return `${said(1000 * metres, size < 0.001 ? 2 : size < 0.01 ? 1 : 0)} mm`
}

/** An area given in m², as somebody reads it who works in a unit of length: as core's LengthText writes it. */
export function areaText(area: number, unit = 'm'): string {
  if (unit === 'in' || unit === 'ft') {
    const feet = area / SQUARE_FOOT
    return feet >= 1 ? `${said(feet, 1)} ft²` : `${said(feet * 144, feet < 1 / 144 ? 2 : 0)} in²`
  }
  if (area < 1e-4) return `${said(area * 1e6, 0)} mm²`
  if (area < 0.1) return `${said(area * 1e4, 0)} cm²`
  return `${said(area, area >= 100 ? 0 : area >= 10 ? 1 : 2)} m²`
}

const UNITS: Record<string, number> = {
  mm: 0.001,
  cm: 0.01,
  m: 1,
  in: 0.0254,
  '"': 0.0254,
  '″': 0.0254,
  ft: 0.3048,
  "'": 0.3048,
  '′': 0.3048,
}

/**
 * A length typed as "5", "5 mm", "1/2 in" or 2'6" in metres; without a unit in the one that is worked in. Null where it is
 * none.
 */
export function parseLength(text: string, unitMetres: number): number | null {
  const pieces = text
    .trim()
    .replace(/,/g, '.')
    .match(/[-+]?(\d+\s*\/\s*\d+|\d*\.?\d+)\s*(mm|cm|m|in|ft|["″'′])?/gi)
  if (!pieces || pieces.join('').replace(/\s/g, '').length !== text.replace(/\s/g, '').length) return null
  let sum = 0
  for (const piece of pieces) {
    const [, number = '', unit = ''] = /^([-+]?[\d./\s]+?)\s*([a-z"″'′]*)$/i.exec(piece.trim()) ?? []
    const [over = '', under = '1'] = number.split('/')
    const factor = unit === '' ? unitMetres : UNITS[unit.toLowerCase()]
    if (factor === undefined || Number(under) === 0) return null
    const value = (Number(over) / Number(under)) * factor
    sum += sum < 0 ? -value : value
  }
  return Number.isFinite(sum) ? sum : null
}

/** A length in metres as it is written in a unit. */
export function lengthText(metres: number, unit: string, unitMetres: number, decimals: number): string {
  return `${Number((metres / unitMetres).toFixed(decimals + 1))} ${unit}`
}

/** What something weighs in memory or as a file. */
export function weight(bytes: number): string {
  return bytes >= 2 ** 20
    ? `${(bytes / 2 ** 20).toFixed(1)} MB`
    : `${Math.max(1, Math.round(bytes / 1024))} kB`
}
