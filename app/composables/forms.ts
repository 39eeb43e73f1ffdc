import { useForm } from '@tanstack/vue-form'
import type { z } from 'zod'
import type { Asked } from './ask'

/** Words of a field's first error, from the schema or the server. */
export function firstError(errors: readonly unknown[]): string | null {
  for (const e of errors) {
    if (typeof e === 'string') return e
    if (e && typeof e === 'object' && 'message' in e) return String(e.message)
  }
  return null
}

/**
 * A form held by the HTTP contract's schema: checked on sending, each field's words beside it, the server's refusals
 * in the same places. `send` answers like `ask`.
 */
export function useContractForm<V extends Record<string, unknown>, T>(options: {
  initial: V
  schema: z.ZodType
  send: (value: V) => Promise<Asked<T>>
  done: (answer: T) => unknown
}) {
  const trouble = ref<string | null>(null)
  const server = shallowRef<Record<string, string>>({})
  const form = useForm({
    defaultValues: options.initial,
    canSubmitWhenInvalid: true, // a corrected form is checked again on sending
    validators: { onSubmit: options.schema as never },
    onSubmitInvalid: () => {
      trouble.value = 'Something is missing or does not fit: see the marked lines'
    },
    onSubmit: async ({ value }) => {
      trouble.value = null
      server.value = {}
      const asked = await options.send(value as V)
      if (asked.is === 'done') return void (await options.done(asked.value))
      if (asked.is === 'offline') return void (trouble.value = OFFLINE_WORDS)
      server.value = Object.fromEntries(asked.issues.map(i => [i.field, i.message]))
      trouble.value = asked.message
    },
  })
  return { form, trouble, server }
}
