<!-- How sure the advice is that every gear is clean, for a page that shows what is done and no advice. -->
<script setup lang="ts">
import type { JobState } from '#core/ledger/reduce'
import { adviceQuestion } from '~/workers/question'
import { useAdvice } from '~/workers/useAdvice'

const props = defineProps<{ state: JobState }>()
const right = defineModel<number | null>({ required: true })
const { record } = storeToRefs(useLedger())
const session = useSession()
const { picture } = useAdvice(
  computed(() => (record.value ? adviceQuestion(props.state, record.value, session.now) : null)),
)
watch(picture, seen => (right.value = seen?.right ?? null), { immediate: true })
</script>

<template>
  <span hidden />
</template>
