<script setup lang="ts">
import { NumberOfJob } from '#core/http/answers'
useHead({ title: 'Tag · Ocho' })
const route = useRoute()
const tag = String(route.params.tag)
const { data, error } = await useRead(NumberOfJob, `/api/tags/${encodeURIComponent(tag)}`)
if (data.value) await navigateTo(`/jobs/${data.value.number}/rear`)
</script>

<template>
  <div>
    <PageHead title="Tag" />
    <main class="mx-auto max-w-lg p-6">
      <p v-if="error" class="stopped" role="alert">
        No open job hangs on tag {{ tag }}. It may be handed back already.
      </p>
      <NuxtLink to="/" class="act mt-5">To the Floor</NuxtLink>
    </main>
  </div>
</template>
