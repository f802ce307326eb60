import type { Material } from '../../api/client'

/** What a material can be found by: its code and names, what kind it is, its colour in a word, its finish. */
export function materialText(m: Material): string {
  return [m.code, m.name, m.kind, m.subKind, m.colour.word, m.finish].filter(Boolean).join(' ')
}
