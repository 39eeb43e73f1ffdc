<script setup lang="ts">
import { Done } from '#core/http/answers'
import { DoorView, FirstRun } from '#core/http/people'

useHead({ title: 'First run · Ocho' })
const { data: door } = await useRead(DoorView, '/api/sign-in')
if (door.value && !door.value.firstRun) await navigateTo('/sign-in')

const setUp = useContractForm({
  initial: { code: '', shopName: '', shop: '', zone: 'Europe/Dublin', name: '', password: '', pin: '' },
  schema: FirstRun,
  send: value => ask(Done, '/api/first-run', { method: 'POST', body: value }),
  done: () => navigateTo('/', { external: true }),
})
const { form, trouble } = setUp
onMounted(() => form.setFieldValue('zone', Intl.DateTimeFormat().resolvedOptions().timeZone))

const FIELDS = [
  { name: 'code', label: 'Code from the terminal', hint: 'Ocho shows it where it was started' },
  { name: 'shopName', label: 'Shop name' },
  { name: 'shop', label: 'Shop code', hint: 'Short, for signing devices in: letters, digits, dashes' },
  { name: 'zone', label: 'Time zone' },
  { name: 'name', label: 'Your name', hint: 'You are the first owner; add others from the Shop page' },
  { name: 'password', label: 'Password', type: 'password', hint: 'At least 10 characters; signs devices in' },
  { name: 'pin', label: 'PIN', type: 'password', hint: '4 to 8 digits; says at the bench who you are' },
] as const
</script>

<template>
  <main class="mx-auto max-w-lg p-5 py-10">
    <div class="flex items-center gap-3">
      <TheMark />
      <h1 class="text-3xl font-bold">Set up your shop</h1>
    </div>
    <form class="mt-6 grid gap-4" novalidate @submit.prevent="form.handleSubmit()">
      <FormLine
        v-for="f in FIELDS"
        :key="f.name"
        :of="setUp"
        :name="f.name"
        :label="f.label"
        :hint="'hint' in f ? f.hint : ''"
        :type="'type' in f ? f.type : 'text'"
        :autocomplete="f.name === 'password' ? 'new-password' : 'off'"
      />
      <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
      <form.Subscribe v-slot="{ isSubmitting }">
        <button class="act justify-center" :disabled="isSubmitting">
          {{ isSubmitting ? 'Setting up' : 'Set up' }}
        </button>
      </form.Subscribe>
    </form>
  </main>
</template>
