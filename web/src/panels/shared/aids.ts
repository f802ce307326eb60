import type { DiagramBy } from '../../api/client'
import type { Aid } from '../../stores/workspace'

/** What the stage, and pictures of it, can show of a model. */
export const AIDS: { value: Aid; title: string; says: string }[] = [
  { value: 'looks', title: 'Looks', says: 'As materials and light make them' },
  { value: 'plain', title: 'Plain colours', says: 'The mean colour of each look, without light' },
  { value: 'white', title: 'White model', says: 'The form alone' },
  { value: 'MATERIAL', title: 'By material', says: 'A colour and a hatch for each material' },
  { value: 'ROLE', title: 'By role', says: 'A colour and a hatch for what things are' },
  { value: 'GROUP', title: 'By area', says: 'A colour and a hatch for each group that divides the model' },
]

/** Whether that tells surfaces apart by colours and hatches that stand for something. */
export function isDiagram(shown: string): shown is DiagramBy {
  return shown === 'MATERIAL' || shown === 'ROLE' || shown === 'GROUP'
}
