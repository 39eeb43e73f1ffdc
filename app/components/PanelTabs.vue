<!-- Panels of which one shows: tabs, with their keys. Each panel's slot is named by its key. -->
<script setup lang="ts" generic="P extends string">
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/vue'

const props = defineProps<{
  tabs: readonly (readonly [P, string])[]
  label: string
  /** Names each tab for tests, with its key. */
  test: string
  columns?: number
}>()
const at = defineModel<P>({ required: true })
const index = computed(() => props.tabs.findIndex(t => t[0] === at.value))
const choose = (i: number) => {
  at.value = props.tabs[i]![0]
}
</script>

<template>
  <TabGroup as="div" class="flex flex-col gap-2.5" :selected-index="index" @change="choose">
    <TabList
      class="gap-1"
      :class="tabs.length > 1 ? 'grid' : 'hidden'"
      :aria-label="label"
      :style="{ gridTemplateColumns: `repeat(${columns ?? tabs.length}, minmax(0, 1fr))` }"
    >
      <Tab v-for="[key, words] in tabs" :key="key" v-slot="{ selected }" as="template">
        <button
          type="button"
          class="also min-h-11! justify-center px-1! text-sm"
          :class="{ chosen: selected }"
          :data-test="`${test}-${key}`"
        >
          {{ words }}
        </button>
      </Tab>
    </TabList>
    <TabPanels as="template">
      <TabPanel v-for="[key] in tabs" :key="key" class="flex grow flex-col gap-2.5" :tabindex="-1"
        ><slot :name="key"
      /></TabPanel>
    </TabPanels>
  </TabGroup>
</template>
