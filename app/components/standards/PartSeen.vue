<!-- What this shop measured of such a part on bikes it had here. -->
<script setup lang="ts">
import { RecordsOfStandard } from '#core/http/records'
import { recordRule } from '#core/records/chapters'
import { likesOf } from '#core/records/like'

const props = defineProps<{ standard: string; figure: string }>()
const emit = defineEmits<{ take: [value: number] }>()
const { data } = useLazyFetch(() => `/api/standards/records/${encodeURIComponent(props.standard)}`, {
  transform: (raw: unknown) => RecordsOfStandard.parse(raw),
  server: false,
})
const likes = computed(() => {
  const seen = data.value?.figures.find(f => f.figure === props.figure)
  return likesOf(recordRule(props.figure)!, props.standard, null, seen, undefined)
})
</script>

<template>
  <LikeShown v-if="likes.length" :standard="standard" :figure="figure" :likes="likes" @take="emit('take', $event)" />
</template>
