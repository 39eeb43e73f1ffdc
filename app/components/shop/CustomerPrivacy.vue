<!-- What a customer may ask of the shop: what is kept on them, and to be forgotten. -->
<script setup lang="ts">
import { Done } from '#core/http/answers'
import { CustomerKept } from '#core/shop/privacy'

const props = defineProps<{ customer: { id: string; name: string } }>()
const emit = defineEmits<{ erased: [] }>()
const sure = ref(false)
const trouble = ref('')

async function takeOut() {
  const asked = await asOwner(() => ask(CustomerKept, `/api/customers/${props.customer.id}/export`))
  trouble.value = sayTrouble(asked)
  if (asked.is !== 'done') return
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([JSON.stringify(asked.value, null, 1)], { type: 'application/json' }))
  link.download = 'customer.json'
  link.click()
  URL.revokeObjectURL(link.href)
}
async function erase() {
  const asked = await asOwner(() => ask(Done, `/api/customers/${props.customer.id}/erase`, { method: 'POST' }))
  trouble.value = sayTrouble(asked)
  sure.value = false
  if (asked.is === 'done') emit('erased')
}
</script>

<template>
  <section class="border-t border-rule pt-3" data-test="privacy">
    <h2 class="font-bold">{{ customer.name }}’s data</h2>
    <p v-if="trouble" class="stopped mt-2" role="alert">{{ trouble }}</p>
    <button type="button" class="quiet -ml-2" data-test="customer-out" @click="takeOut">
      All that is kept, as a file
    </button>
    <button v-if="!sure" type="button" class="quiet text-stop" data-test="customer-erase" @click="sure = true">
      Erase this customer
    </button>
    <template v-else>
      <p class="small mt-1">
        Name, phone, frame numbers, complaints, notes and photographs go for good, of all their bikes; what was turned
        and measured stays and names nobody. Backups made before keep them until they are too old, a year at most.
      </p>
      <button type="button" class="also mt-2 border-stop! text-stop!" data-test="customer-erase-sure" @click="erase">
        Yes, erase {{ customer.name }}
      </button>
      <button type="button" class="quiet" @click="sure = false">Keep</button>
    </template>
  </section>
</template>
