<!-- An owner changes a person's name or role, or lets them go: asked once more. -->
<script setup lang="ts">
import { Role } from '#core/chapter/ids'
import { Done } from '#core/http/answers'
import { ChangePerson } from '#core/http/people'
import type { PersonView } from '#core/http/session'

const props = defineProps<{ person: PersonView }>()
const emit = defineEmits<{ done: [words: string] }>()
const send = (value: ChangePerson) =>
  asOwner(() => ask(Done, `/api/shop/people/${props.person.id}/change`, { method: 'POST', body: value }))
const initial: { name: string; role: Role } = { name: props.person.name, role: props.person.role }
const changing = useContractForm({
  initial,
  schema: ChangePerson,
  send,
  done: (_, { name, role }) => emit('done', `${name} is kept as ${role}.`),
})
const { form, trouble } = changing
const ROLES = Role.options.map(value => ({ value, words: value }))
const leaving = ref(false)
const leaveTrouble = ref('')
async function leave() {
  const asked = await send({ leaves: true })
  leaveTrouble.value = sayTrouble(asked)
  if (asked.is === 'done') emit('done', `${props.person.name} has left: unlocked nowhere, still named on the ledger.`)
}
</script>

<template>
  <form class="grid gap-3 pb-4" novalidate @submit.prevent="form.handleSubmit()">
    <FormLine :of="changing" name="name" label="Name" />
    <form.Field v-slot="{ field, state }" name="role">
      <div>
        <p class="label">Role</p>
        <ChoiceRow
          :model-value="state.value"
          label="Role"
          :choices="ROLES"
          :test="`role-of-${person.name}`"
          @update:model-value="r => r && field.handleChange(r)"
        />
      </div>
    </form.Field>
    <p v-if="trouble || leaveTrouble" class="stopped" role="alert">{{ trouble || leaveTrouble }}</p>
    <button class="act justify-center" data-test="change-done">Keep</button>
    <button v-if="!leaving" type="button" class="quiet text-stop" data-test="leaves" @click="leaving = true">
      {{ person.name }} leaves the shop
    </button>
    <template v-else>
      <p class="small">Nobody signs in as {{ person.name }} any more; what was done stays under the name.</p>
      <button type="button" class="also border-stop! text-stop!" data-test="leaves-sure" @click="leave">
        Yes, {{ person.name }} has left
      </button>
    </template>
  </form>
</template>
