import type { Control, Material, Values } from '../../api/client'

/** The material on the card, and how its values are read and changed. */
export interface Card {
  material: Material
  control: (name: string) => Control | undefined
  number: (parameter: string) => number
  linear: (parameter: string) => number[]
  flag: (parameter: string) => boolean
  /** Whether the value is another than the material's that this one was made from. */
  changed: (parameter: string) => boolean
  attempt: (values: Values) => void
  commit: (values: Values) => unknown
  reset: (parameter: string) => void
}

/** What a control says when one rests on its name. */
export function hintOf(control: Control): string {
  const ends = control.ends.length === 2 ? ` From ${control.ends[0]} to ${control.ends[1]}.` : ''
  const traced = control.traced ? ' Shows in traced pictures, not on the stage.' : ''
  return `${control.says}${ends} ${control.examples.join('; ')}.${traced}`
}
