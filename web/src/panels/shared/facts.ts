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
