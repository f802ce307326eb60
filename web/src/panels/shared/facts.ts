import type { Facts } from '../../api/client'

/** A material of which nothing is known besides its look. */
export const NOTHING_KNOWN: Facts = {
  density: null,
  price: null,
  waste: null,
  carbon: null,
  tags: [],
  substance: null,
  source: null,
  licence: null,
  supplier: null,
  article: null,
  drawing: null,
  missing: null,
  hasSubstance: null,
}

/** A number as it is typed, with a comma or a point: null for an empty field, undefined for what is no number. */
export function numberTyped(text: string): number | null | undefined {
  const plain = text.trim().replace(',', '.')
  if (plain === '') return null
  const read = Number(plain)
  return Number.isFinite(read) ? read : undefined
}
