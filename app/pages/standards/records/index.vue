<script setup lang="ts">
import { StandardCount } from '#core/http/records'
import { sayStandard } from '#core/records/chapters'
import { countOf } from '#core/quantity/words'

useHead({ title: 'Records · Standards · Ocho' })
const { data: counts, error, refresh } = await useRead(StandardCount.array(), '/api/standards/records')
const { catalogue } = await useCatalogue()
const most = computed(() => Math.max(1, ...(counts.value?.map(c => c.bikes) ?? [])))
const numbers = (id: string): string =>
  sayStandard(id) ?? catalogue.value.find(e => e.id === id)?.title ?? 'a part of your own'
const nickname = (id: string) => catalogue.value.find(e => e.id === id && e.nickname)?.nickname
</script>

<template>
  <div>
    <PageHead title="Standards"><StandardsNav /></PageHead>
    <main class="mx-auto max-w-4xl px-4 py-5 sm:px-6">
      <p v-if="error" class="stopped mb-4" role="alert">
        {{ OFFLINE_WORDS }} <button type="button" class="quiet underline" @click="refresh()">Try again</button>
      </p>
      <h2 class="text-lg font-bold">What this shop has found, by standard</h2>
      <ul v-if="counts?.length" class="mt-2 border-t-2 border-ink">
        <li v-for="c in counts" :key="c.standard" class="border-b border-rule">
          <NuxtLink
            :to="`/standards/records/${encodeURIComponent(c.standard)}`"
            class="grid min-h-14 grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-4 py-1 sm:grid-cols-[7rem_1fr_14rem_4.5rem]"
            :data-test="`standard-${c.standard}`"
          >
            <span class="figure text-lg font-semibold">{{ c.standard.split(' ')[0] }}</span>
            <span
              ><b v-if="nickname(c.standard)" class="mr-2">{{ nickname(c.standard) }}</b
              ><span class="text-soft">{{ numbers(c.standard) }}</span></span
            >
            <span class="hidden h-3 bg-rule sm:block" aria-hidden="true"
              ><span class="block h-3 bg-ink" :style="{ width: `${(100 * c.bikes) / most}%` }"
            /></span>
            <span class="figure text-right">{{ countOf(c.bikes, 'bike') }}</span>
          </NuxtLink>
        </li>
      </ul>
      <p v-else-if="counts" class="mt-3 border-2 border-dashed border-rule p-6 text-soft">
        Nothing is recorded yet. What is measured and set on a bike is kept here when it is handed back.
      </p>
    </main>
  </div>
</template>
