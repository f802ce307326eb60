<script setup lang="ts">
import { computed } from 'vue'
import { useImports } from '../../stores/imports'
import { counted, useWorkspace } from '../../stores/workspace'
import FileTaker from './FileTaker.vue'

/** How many are listed. */
const LISTED = 12

/** Files that the project's models refer to and that did not come along: named, and taken when they are found. */
const workspace = useWorkspace()
const imports = useImports()
const lacking = computed(() => workspace.scene?.lacking ?? [])
const here = computed(() => imports.purpose === 'late' && imports.into === workspace.id)
const done = computed(() => here.value && imports.job?.state === 'DONE')
</script>

<template>
  <section v-if="lacking.length > 0 || done" class="fold" aria-label="Missing files">
    <h2>
      Missing files
      <small v-if="lacking.length > 0">{{ lacking.length.toLocaleString('en') }}</small>
    </h2>
    <template v-if="lacking.length > 0">
      <p class="soft small">
        Models refer to {{ lacking.length === 1 ? 'a file' : counted(lacking.length, 'file') }} that did not
        come along.
      </p>
      <ul class="missing">
        <li v-for="l in lacking.slice(0, LISTED)" :key="l" :title="l">{{ l.replace(/^.*\//, '') }}</li>
      </ul>
      <p v-if="lacking.length > LISTED" class="soft small">and {{ lacking.length - LISTED }} more</p>
      <FileTaker
        purpose="late"
        label="Files that the model lacks"
        doing="Looking for what is missing"
        multiple
        @take="imports.takeLate(workspace.id, $event)"
      >
        {{ lacking.length === 1 ? 'Find it' : 'Find them' }}
      </FileTaker>
    </template>
    <p v-if="done" class="small found" role="status">
      {{
        lacking.length === 0
          ? 'All found: the source materials are whole.'
          : 'Some were found; these are still missing.'
      }}
    </p>
  </section>
</template>

<style scoped>
.missing {
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
.missing li {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.found {
  margin-top: 6px;
}
</style>
