<!-- Who signed in, and what owners did: the last of it first. -->
<script setup lang="ts">
import { AuditView } from '#core/shop/audit'

const props = defineProps<{ zone: string }>()
const { data: trail, error, refresh } = await useRead(AuditView.array(), '/api/shop/audit')
watch(useOwnerActs(), () => refresh())
const SHOWN = 8
const all = ref(false)
const shown = computed(() => (all.value ? (trail.value ?? []) : (trail.value ?? []).slice(0, SHOWN)))
const line = (a: AuditView) => `${a.person ?? 'Somebody'} ${a.words}${a.detail ? `: ${a.detail}` : ''}`
</script>

<template>
  <section data-test="trail">
    <h2 class="text-lg font-bold">Who did what</h2>
    <p v-if="error" class="stopped mt-2" role="alert">{{ error.data?.data?.message ?? OFFLINE_WORDS }}</p>
    <ol class="mt-2 border-t border-rule">
      <li v-for="a in shown" :key="a.id" class="border-b border-rule py-1.5">
        {{ line(a)
        }}<span class="small block">{{ [sayTime(a.at, props.zone), a.device].filter(Boolean).join(', ') }}</span>
      </li>
    </ol>
    <button v-if="(trail?.length ?? 0) > SHOWN && !all" type="button" class="quiet -ml-2" @click="all = true">
      Show {{ trail!.length - SHOWN }} more
    </button>
  </section>
</template>
