import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Colour, Material } from '../api/client'

const SLOP = 5
const MOST_STEPS = 20

/** Text that is passed over while something is carried is not marked. */
function keepFromSelecting(e: Event) {
  e.preventDefault()
}

/** A chip, or a colour alone, being carried over the stage. Nothing is sent before it is let go. */
export const useDrag = defineStore('drag', () => {
  const material = shallowRef<Material | null>(null)
  const colour = shallowRef<Colour | null>(null)
  const carries = computed(() => material.value !== null || colour.value !== null)
  const picture = ref('')
  const x = ref(0)
  const y = ref(0)
  const narrow = ref(false)
  /** Levels narrower than the one that shows; broader where it is below 0. */
  const steps = ref(0)
  /** Whether the chip is for the side alone that is under the cursor. */
  const oneSide = ref(false)
  let onDrop: (() => void) | null = null
  /** The drawer that the chip is over, if any takes it. */
  const over = ref('')
  let onKeep: ((material: Material, drawer: string) => void) | null = null

  /** Called when a chip is pressed; carrying begins once the pointer has moved a little. */
  function press(event: PointerEvent, pressed: Material, chipPicture: string) {
    carry(event, () => {
      material.value = pressed
      picture.value = chipPicture
    })
  }

  /** Called when a colour is pressed. */
  function pressColour(event: PointerEvent, pressed: Colour) {
    carry(event, () => (colour.value = pressed))
  }

  function carry(event: PointerEvent, begin: () => void) {
    const from = { x: event.clientX, y: event.clientY }
    const move = (e: PointerEvent) => {
      if (!carries.value) {
        if (Math.hypot(e.clientX - from.x, e.clientY - from.y) < SLOP) return
        begin()
      }
      x.value = e.clientX
      y.value = e.clientY
      narrow.value = e.shiftKey
      const below = document.elementFromPoint(e.clientX, e.clientY)
      over.value = material.value ? (below?.closest('[data-keep]')?.getAttribute('data-keep') ?? '') : ''
    }
    const wheel = (e: WheelEvent) => {
      if (!carries.value) return
      e.preventDefault()
      e.stopPropagation()
      step(Math.sign(e.deltaY))
    }
    const key = (e: KeyboardEvent) => {
      if (e.key === 'Escape') end()
      if (e.type === 'keydown' && carries.value && (e.key === 'ArrowUp' || e.key === 'ArrowDown')) {
        e.preventDefault()
        step(e.key === 'ArrowUp' ? -1 : 1)
      }
      if (e.type === 'keydown' && carries.value && e.code === 'KeyS' && !e.repeat) {
        e.preventDefault()
        e.stopPropagation()
        oneSide.value = !oneSide.value
      }
      if (e.key === 'Shift') narrow.value = e.type === 'keydown'
    }
    const up = () => {
      if (material.value && over.value) onKeep?.(material.value, over.value)
      else if (carries.value) onDrop?.()
      end()
    }
    const end = () => {
      material.value = null
      colour.value = null
      picture.value = ''
      over.value = ''
      steps.value = 0
      oneSide.value = false
      window.removeEventListener('wheel', wheel, { capture: true })
      window.removeEventListener('selectstart', keepFromSelecting)
      window.removeEventListener('pointermove', move)
      window.removeEventListener('pointerup', up)
      window.removeEventListener('pointercancel', end)
      window.removeEventListener('keydown', key)
      window.removeEventListener('keyup', key)
    }
    steps.value = 0
    window.addEventListener('wheel', wheel, { capture: true, passive: false })
    window.addEventListener('selectstart', keepFromSelecting)
    window.addEventListener('pointermove', move)
    window.addEventListener('pointerup', up)
    window.addEventListener('pointercancel', end)
    window.addEventListener('keydown', key)
    window.addEventListener('keyup', key)
  }

  function step(by: number) {
    steps.value = Math.max(-MOST_STEPS, Math.min(MOST_STEPS, steps.value + by))
  }

  /** The stage says what letting go means. */
  function setDrop(handler: (() => void) | null) {
    onDrop = handler
  }

  /** The tray says what letting go over a drawer means. */
  function setKeep(handler: ((material: Material, drawer: string) => void) | null) {
    onKeep = handler
  }

  return {
    material,
    colour,
    carries,
    picture,
    x,
    y,
    narrow,
    steps,
    oneSide,
    over,
    press,
    pressColour,
    setDrop,
    setKeep,
  }
})
