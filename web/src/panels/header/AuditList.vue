<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue'
import { api, type Noted } from '../../api/client'
import { useRefusal } from '../shared/refusal'
import { moment } from '../shared/moment'

/** Audit list: what was done to accounts and by them, the newest first. */
const PAGE = 50
const all = shallowRef<Noted[]>([])
const more = ref(false)
const { refused, attempt } = useRefusal()

onMounted(read)

async function read() {
  await attempt(async () => {
    const page = await api.audit(all.value[all.value.length - 1]?.id)
    all.value = [...all.value, ...page]
    more.value = page.length === PAGE
  })
}
</script>

<template>
  <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
  <div class="list">
    <table>
      <thead>
        <tr>
          <th scope="col">When</th>
          <th scope="col">Who</th>
          <th scope="col">What</th>
          <th scope="col">Whom or what</th>
          <th scope="col">From</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="n in all" :key="n.id">
          <td>{{ moment(n.at) }}</td>
          <td>{{ n.login }}</td>
          <td>{{ n.what }}</td>
          <td>{{ n.about }}</td>
          <td>{{ n.address }}</td>
        </tr>
      </tbody>
    </table>
    <v-btn v-if="more" size="small" @click="read">Earlier</v-btn>
  </div>
</template>

<style scoped>
.list {
  max-height: 360px;
  overflow: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 12px;
}
th {
  text-align: left;
  font-weight: 500;
}
td:first-child {
  white-space: nowrap;
}
td,
th {
  padding: 3px 8px 3px 0;
  border-bottom: 1px solid var(--line);
}
</style>
