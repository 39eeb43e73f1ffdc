<!-- A drivetrain out of what fits what was seen, measured, or by its figures: one place for the door and for the stand.
  -->
<script setup lang="ts">
import type { Seen } from '#core/job/seen'
import type { EntryInForce } from '#core/standards/shopValues'
import type { PartsOfShop } from '#core/standards/partsOfShop'
import type { Drivetrain } from '~/composables/drivetrain'

defineProps<{
  of: Drivetrain
  seen: Pick<Seen, 'sprockets' | 'lever'>
  used: Readonly<Record<string, number>>
  catalogue: readonly EntryInForce[]
  parts: PartsOfShop
  showErrors: boolean
  countedWords: string
  /** It is asked here and now: nothing may stay open. */
  now?: boolean
}>()
</script>

<template>
  <div class="grid gap-3">
    <FitsSeen
      :seen="seen"
      :used="used"
      :catalogue="catalogue"
      :read="of.read.value"
      :chosen="of.chosen.value"
      :way="of.way.value"
      :now="now"
      @choose="of.choose"
      @way="of.go"
    />
    <LazyDrivetrainFields
      v-if="of.way.value === 'figures'"
      :model-value="of.typed.value"
      :catalogue="catalogue"
      :read="of.read.value"
      :show-errors="showErrors"
      :counted-words="countedWords"
      @update:model-value="of.type"
    />
    <LazyMeasuringAid
      v-else-if="of.way.value === 'measure'"
      :parts="parts"
      :catalogue="catalogue"
      use-words="These are its parts"
      @use="of.measured"
    />
  </div>
</template>
