<!-- A page that is not there, or that broke: in the shop's words, with the ways on. -->
<script setup lang="ts">
import type { NuxtError } from '#app'

const props = defineProps<{ error: NuxtError }>()
const missing = computed(() => props.error.statusCode === 404)
useHead({ title: () => (missing.value ? 'Not here · Ocho' : 'Something broke · Ocho') })
const toFloor = () => clearError({ redirect: '/' })
const reload = () => window.location.reload()
</script>

<template>
  <main class="mx-auto max-w-xl px-4 py-16 sm:px-6" data-test="error-page">
    <TheMark />
    <h1 class="mt-4 text-2xl font-bold">{{ missing ? 'There is nothing at this address' : 'This page broke' }}</h1>
    <p class="mt-2">
      {{
        missing
          ? 'The address may be cut short, or a job number that this shop does not have. Find the bike by its tag on the Floor.'
          : 'What you tapped is kept on this device. Load the page again; should it break again, tell who looks after Ocho.'
      }}
    </p>
    <div class="mt-5 grid gap-2 sm:grid-cols-2">
      <button type="button" class="act" data-test="error-floor" @click="toFloor">To the Floor</button>
      <button v-if="!missing" type="button" class="also justify-center" @click="reload">Load it again</button>
    </div>
  </main>
</template>
