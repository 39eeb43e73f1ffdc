<!-- A bike chosen by what the eye can count: sprockets, rings, bar and lever, brakes, where the cable runs. -->
<script setup lang="ts">
import { BRAKE_KIND_WORDS, type EndKind } from '#core/brake/kinds'
import { LEVER_KIND_WORDS, LEVER_KINDS, type Seen } from '#core/job/seen'
import { FRAME_KINDS, FRAME_WORDS, type FrameKind } from '#core/standards/frames'
import type { Pictured } from '~/drawings/DoorPicture.vue'

const seen = defineModel<Seen>({ required: true })
const frameKind = defineModel<FrameKind | null>('frameKind', { required: true })
/** Only what names a drivetrain. */
const props = defineProps<{ gearsOnly?: boolean }>()
const set = (change: Partial<Seen>) => {
  seen.value = { ...seen.value, ...change }
}

type Tile<T> = { value: T; words: string; picture: Pictured }
const SPROCKETS: Tile<number>[] = [1, 5, 6, 7, 8, 9, 10, 11, 12].map(n => ({
  value: n,
  words: n === 1 ? '1, or hub' : String(n),
  picture: { of: 'sprockets', is: n },
}))
const RINGS: Tile<number>[] = [1, 2, 3].map(n => ({ value: n, words: String(n), picture: { of: 'rings', is: n } }))
const LEVERS: Tile<Seen['lever'] & string>[] = LEVER_KINDS.map(k => ({
  value: k,
  words: LEVER_KIND_WORDS[k],
  picture: { of: 'lever', is: k },
}))
/** The kinds most bikes have; the rest are one touch farther. */
const USUAL_ENDS = ['linear-pull', 'dual-pivot', 'cable-disc', 'hydraulic-disc'] as const
const OTHER_ENDS = ['cantilever', 'hydraulic-rim', 'drum', 'roller', 'coaster', 'none'] as const
const SHORT: Partial<Record<EndKind, string>> = {
  'linear-pull': 'linear-pull',
  'dual-pivot': 'dual-pivot',
  cantilever: 'cantilever',
  drum: 'drum',
  roller: 'roller',
  coaster: 'coaster',
  none: 'none',
}
const brakeTile = (k: EndKind): Tile<EndKind> => ({
  value: k,
  words: SHORT[k] ?? BRAKE_KIND_WORDS[k].toLowerCase(),
  picture: { of: 'brake', is: k },
})
const more = ref(false)
const apart = ref(seen.value.front !== seen.value.rear)
const ends = computed(() => {
  const shown: EndKind[] = [...USUAL_ENDS, ...(more.value ? OTHER_ENDS : [])]
  for (const k of [seen.value.front, seen.value.rear]) if (k && !shown.includes(k)) shown.push(k)
  return shown.map(brakeTile)
})
const FRAMES: Tile<FrameKind>[] = FRAME_KINDS.map(k => ({
  value: k,
  words: FRAME_WORDS[k],
  picture: { of: 'frame', is: k },
}))
const picture = (tiles: readonly Tile<unknown>[], value: unknown) => tiles.find(t => t.value === value)!.picture
/** What nobody has counted is asked at the stand. */
const STAND = 'at the stand'
</script>

<template>
  <div class="looks grid gap-x-5 gap-y-2.5">
    <div class="whole">
      <p class="look-head">
        Sprockets at the back <span v-if="seen.sprockets === null" class="open">{{ STAND }}</span>
      </p>
      <ChoiceRow
        :model-value="seen.sprockets"
        label="Sprockets at the back"
        :choices="SPROCKETS"
        class="many"
        size="picture"
        test="sprockets"
        @update:model-value="set({ sprockets: $event })"
      >
        <template #default="{ choice }"
          ><DoorPicture :what="picture(SPROCKETS, choice.value)" /><span>{{ choice.words }}</span></template
        >
      </ChoiceRow>
    </div>
    <div v-if="!gearsOnly">
      <p class="look-head">Rings <span v-if="seen.rings === null" class="open">{{ STAND }}</span></p>
      <ChoiceRow
        :model-value="seen.rings"
        label="Rings"
        :choices="RINGS"
        size="picture"
        test="rings"
        @update:model-value="set({ rings: $event })"
      >
        <template #default="{ choice }"
          ><DoorPicture :what="picture(RINGS, choice.value)" /><span>{{ choice.words }}</span></template
        >
      </ChoiceRow>
    </div>
    <div :class="{ whole: props.gearsOnly }">
      <p class="look-head">Bar and lever <span v-if="seen.lever === null" class="open">{{ STAND }}</span></p>
      <ChoiceRow
        :model-value="seen.lever"
        label="Bar and lever"
        :choices="LEVERS"
        size="picture"
        test="bar"
        @update:model-value="set({ lever: $event })"
      >
        <template #default="{ choice }"
          ><DoorPicture :what="picture(LEVERS, choice.value)" /><span>{{ choice.words }}</span></template
        >
      </ChoiceRow>
    </div>
    <div v-if="!gearsOnly" class="whole">
      <div class="look-head">
        <span
          >{{ apart ? 'Front brake' : 'Brakes, front and rear' }}
          <span v-if="seen.front === null" class="open">{{ STAND }}</span></span
        >
        <span class="flex gap-2">
          <button v-if="!more" type="button" class="quiet small -my-3" data-test="more-brakes" @click="more = true">
            Other kinds
          </button>
          <button
            type="button"
            class="quiet small -my-3"
            data-test="brakes-apart"
            :aria-pressed="apart"
            @click="apart = !apart"
          >
            {{ apart ? 'Both alike' : 'Rear differs' }}
          </button></span
        >
      </div>
      <ChoiceRow
        :model-value="seen.front"
        :label="apart ? 'Front brake' : 'Brakes'"
        :choices="ends"
        :columns="more ? 5 : undefined"
        class="few"
        size="picture"
        test="brake"
        @update:model-value="set(apart ? { front: $event } : { front: $event, rear: $event })"
      >
        <template #default="{ choice }"
          ><DoorPicture :what="picture(ends, choice.value)" /><span>{{ choice.words }}</span></template
        >
      </ChoiceRow>
      <template v-if="apart">
        <p class="look-head mt-1">Rear brake <span v-if="seen.rear === null" class="open">{{ STAND }}</span></p>
        <ChoiceRow
          :model-value="seen.rear"
          label="Rear brake"
          :choices="ends"
          :columns="more ? 5 : undefined"
          class="few"
          size="picture"
          test="rear-brake"
          @update:model-value="set({ rear: $event })"
        >
          <template #default="{ choice }"
            ><DoorPicture :what="picture(ends, choice.value)" /><span>{{ choice.words }}</span></template
          >
        </ChoiceRow>
      </template>
    </div>
    <div v-if="!gearsOnly" class="whole">
      <p class="look-head">Where the cable runs <span v-if="frameKind === null" class="open">{{ STAND }}</span></p>
      <ChoiceRow
        v-model="frameKind"
        label="Where the cable runs"
        :choices="FRAMES"
        class="frames"
        size="picture"
        test="frame"
      >
        <template #default="{ choice }"
          ><DoorPicture :what="picture(FRAMES, choice.value)" /><span>{{ choice.words }}</span></template
        >
      </ChoiceRow>
    </div>
  </div>
</template>

<style scoped>
.looks {
  grid-template-columns: minmax(0, 3fr) minmax(0, 4fr);
}
.whole {
  grid-column: 1 / -1;
}
.look-head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 0.5rem;
  margin-bottom: 0.25rem;
  font-weight: 600;
  font-size: 0.9375rem;
}
.open {
  font-weight: 400;
  font-size: 0.875rem;
  color: var(--soft);
}
/* a low screen: picture beside its word, or the word alone */
@media (max-height: 700px) and (min-width: 1000px) {
  .looks {
    row-gap: 4px;
  }
  .looks :deep(.also) {
    flex-direction: row;
    gap: 4px;
    min-height: 44px;
  }
  .looks :deep(svg) {
    width: 40px;
    height: 22px;
  }
  .frames :deep(svg) {
    display: none;
  }
}
@media (max-width: 640px) {
  .looks {
    grid-template-columns: minmax(0, 1fr);
  }
  .many :deep(.grid) {
    grid-template-columns: repeat(5, minmax(0, 1fr)) !important;
  }
  .few :deep(.grid) {
    grid-template-columns: repeat(3, minmax(0, 1fr)) !important;
  }
  .frames :deep(.grid) {
    grid-template-columns: repeat(4, minmax(0, 1fr)) !important;
  }
}
</style>
