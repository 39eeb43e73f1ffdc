<!-- Digits for thumbs; a keyboard types into the same field. -->
<script setup lang="ts">
const pin = defineModel<string>({ required: true })
defineProps<{ busy?: boolean }>()
const emit = defineEmits<{ done: [] }>()
const id = useId()
const press = (digit: string) => {
  if (pin.value.length < 8) pin.value += digit
}
</script>

<template>
  <form @submit.prevent="emit('done')">
    <label :for="id" class="label">PIN</label>
    <input
      :id="id"
      v-model="pin"
      class="field figure text-2xl tracking-widest"
      type="password"
      inputmode="numeric"
      autocomplete="off"
      maxlength="8"
      autofocus
      data-test="pin"
    />
    <div class="mt-3 grid grid-cols-3 gap-2">
      <button
        v-for="d in ['1', '2', '3', '4', '5', '6', '7', '8', '9']"
        :key="d"
        type="button"
        class="also figure justify-center text-2xl"
        @click="press(d)"
      >
        {{ d }}
      </button>
      <button type="button" class="also justify-center" @click="pin = pin.slice(0, -1)">Back</button>
      <button type="button" class="also figure justify-center text-2xl" @click="press('0')">0</button>
      <button type="submit" class="act justify-center" :disabled="busy || pin.length < 4" data-test="pin-done">
        {{ busy ? 'Checking' : 'Enter' }}
      </button>
    </div>
  </form>
</template>
