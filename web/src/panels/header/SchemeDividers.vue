<script setup lang="ts">
import { ref } from 'vue'
import { api, type SchemeWire } from '../../api/client'
import { useFinding } from '../../stores/finding'
import { useSchemes } from '../../stores/schemes'
import { counted, useWorkspace } from '../../stores/workspace'

/** The schemes as dividers of an index: clicked to look at one, dragged on another to compare the two, or between to order. */
const workspace = useWorkspace()
const schemes = useSchemes()
const finding = useFinding()
const carried = ref<string | null>(null)

function sign(s: SchemeWire): string {
  const material = s.sign ? workspace.materials.get(s.sign) : undefined
  return material ? finding.seen(material).hex : 'transparent'
}
function explain(s: SchemeWire): string {
  const base = workspace.schemes.find((b) => b.id === s.bases[0])
  const own = base
    ? `based on ${base.letter}, ${counted(s.own, 'difference')}`
    : counted(s.own, 'look', 'looks')
  const reason = s.reason ? `: ${s.reason}` : ''
  return `${s.letter} ${s.name} · ${schemes.stateWord(s.state)}${reason} · ${own}`
}
function click(s: SchemeWire) {
  if (s.id !== workspace.scheme?.id) void workspace.switchTo(s.id)
  else workspace.aside = workspace.aside === 'scheme' ? null : 'scheme'
}
function compare(other: SchemeWire) {
  const one = carried.value
  carried.value = null
  if (!one || one === other.id) return
  void schemes.compare(one, other.id)
}
/** Alt and arrows put a divider in another place. */
function step(s: SchemeWire, by: number) {
  const at = workspace.schemes.indexOf(s)
  const to = at + (by > 0 ? 2 : -1)
  if (to < 0 || to > workspace.schemes.length) return
  carried.value = s.id
  void move(to)
}
function begin() {
  workspace.aside = 'scheme'
  schemes.making = true
}
async function move(before: number) {
  const one = carried.value
  carried.value = null
  const ids = workspace.schemes.map((s) => s.id)
  const from = one ? ids.indexOf(one) : -1
  if (!one || from < 0 || from === before || from === before - 1) return
  ids.splice(from, 1)
  ids.splice(before > from ? before - 1 : before, 0, one)
  await workspace.run((v) => api.orderSchemes(workspace.id, v, ids))
}
</script>

<template>
  <div class="dividers" role="group" aria-label="Schemes">
    <template v-for="(s, i) in workspace.schemes" :key="s.id">
      <i class="gap" :class="{ open: carried }" @dragover.prevent @drop.prevent="move(i)" />
      <button
        class="plain divider"
        :class="{
          on: s.id === workspace.scheme?.id,
          also: workspace.goesTo.includes(s.id),
          left: s.state === 'REJECTED',
        }"
        :aria-pressed="s.id === workspace.scheme?.id"
        :aria-label="explain(s)"
        draggable="true"
        @pointerenter="workspace.foresee(s.id)"
        @focus="workspace.foresee(s.id)"
        @click="click(s)"
        @keydown.alt.left.prevent="step(s, -1)"
        @keydown.alt.right.prevent="step(s, 1)"
        @dragstart="carried = s.id"
        @dragend="carried = null"
        @dragover.prevent
        @drop.prevent="compare(s)"
      >
        <i class="sign" :style="{ background: sign(s) }" />
        <b>{{ s.letter }}</b>
        <span class="name">{{ s.name }}</span>
        <v-tooltip activator="parent" location="bottom">{{ explain(s) }}</v-tooltip>
      </button>
    </template>
    <i
      class="gap"
      :class="{ open: carried }"
      @dragover.prevent
      @drop.prevent="move(workspace.schemes.length)"
    />
    <button class="plain divider add" aria-label="New scheme" @click="begin">
      +
      <v-tooltip activator="parent" location="bottom">New scheme</v-tooltip>
    </button>
  </div>
</template>

<style scoped>
.dividers {
  display: flex;
  align-items: flex-end;
  align-self: flex-end;
  min-width: 0;
  overflow: auto hidden;
  scrollbar-width: none;
}
.gap {
  flex: none;
  align-self: stretch;
  width: 3px;
}
.gap.open {
  width: 10px;
}
.divider {
  flex: none;
  display: flex;
  align-items: center;
  gap: 6px;
  height: 32px;
  padding: 0 14px 0 9px;
  border: 1px solid var(--line);
  border-bottom: 0;
  border-radius: 3px 14px 0 0;
  background: #e7e5e1;
  color: #3b3935;
}
.divider:focus-visible {
  outline-offset: -2px;
}
.sign {
  width: 10px;
  height: 10px;
  border: 1px solid #0003;
  border-radius: 50%;
}
.name {
  max-width: 110px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.divider b {
  font-weight: 600;
}
.on {
  height: 38px;
  background: var(--panel);
  border-color: var(--line-strong);
  font-weight: 620;
}
.also b {
  text-decoration: underline;
  color: var(--accent);
}
.left .name {
  text-decoration: line-through;
}
.add {
  border-style: dashed;
  background: none;
  color: var(--soft);
}
@media (max-width: 1180px) {
  .divider:not(.on, .add) .name {
    max-width: 56px;
  }
}
</style>
