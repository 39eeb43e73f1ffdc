<!-- Files that were taken in, and the way back from each. -->
<script setup lang="ts">
import { TakenBack, TakenIn } from '#core/http/standards'
import { countOf } from '#core/quantity/words'

const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
defineExpose({ refresh: () => refresh() })
const { data: files, refresh } = await useRead(TakenIn.array(), '/api/standards/taken-in')
const said = ref('')
const trouble = ref('')
const sure = ref<string | null>(null)
const busy = ref(false)
async function back(file: TakenIn) {
  busy.value = true
  const asked = await asOwner(() => ask(TakenBack, `/api/standards/taken-in/${file.id}/back`, { method: 'POST' }))
  busy.value = false
  sure.value = null
  trouble.value = sayTrouble(asked)
  if (asked.is === 'done') {
    const { records, values, stay } = asked.value
    said.value = `Taken back: ${countOf(records, 'record')} and ${countOf(values, 'value')}.${stay ? ` Changed since, and left as they are: ${stay}.` : ''}`
  }
  await refresh()
}
</script>

<template>
  <section v-if="files?.length" class="mt-8" data-test="taken-in">
    <h3 class="font-bold">Taken in lately</h3>
    <p v-if="said" class="font-semibold text-clean" role="status" data-test="taken-back">{{ said }}</p>
    <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
    <ul class="mt-1 border-t border-rule">
      <li v-for="f in files" :key="f.id" class="flex min-h-12 items-center justify-between gap-3 border-b border-rule">
        <span
          ><b>{{ sayTime(f.at, zone) }}</b
          ><span class="small block"
            >{{ f.by }}: {{ countOf(f.records, 'record') }}, {{ countOf(f.values, 'value') }}</span
          ></span
        >
        <span v-if="f.takenBackAt" class="text-soft">taken back</span>
        <span v-else-if="sure === f.id" class="flex gap-1">
          <button type="button" class="quiet text-stop" :disabled="busy" data-test="back-sure" @click="back(f)">
            {{ busy ? 'Taking it back' : 'All of it goes' }}</button
          ><button type="button" class="quiet" @click="sure = null">Not now</button>
        </span>
        <button v-else type="button" class="quiet" data-test="take-back" @click="sure = f.id">Take back</button>
      </li>
    </ul>
  </section>
</template>
