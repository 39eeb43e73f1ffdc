import { useForm } from '@tanstack/vue-form'
import type { Component } from 'vue'
import type { z } from 'zod'
import { issuesOf } from '#core/http/words'
import type { Asked } from './ask'

/** Words of a field's first error. */
export function firstError(errors: readonly unknown[]): string | null {
  const first = errors.find(e => typeof e === 'string')
  return typeof first === 'string' ? first : null
}

type Options<V extends Record<string, unknown>, S extends z.ZodType, T> = {
  initial: V
  /** The contract's own schema: what the server reads; asked anew each time where it depends on what was chosen. */
  schema: S | (() => S)
  /** What the contract is given, of what was typed; as typed where left out. */
  read?: (typed: V) => unknown
  /** The line of the form that a field of the contract is typed in, where it goes by another name. */
  line?: (field: string, typed: V) => string
  done: (answer: T, typed: V) => unknown
}

/**
 * A form held by a contract's schema: checked on sending, each field's words beside it, the server's refusals in the
 * same places. `send` answers like `ask`.
 */
export function useContractForm<V extends Record<string, unknown>, S extends z.ZodType, T>({
  initial,
  schema,
  read = v => v,
  line = f => f,
  send,
  done,
}: Options<V, S, T> & { send: (value: z.infer<S>) => Promise<Asked<T>> }) {
  const schemaNow = () => (typeof schema === 'function' ? schema() : schema)
  const trouble = ref<string | null>(null)
  const server = shallowRef<Record<string, string>>({})
  const form = useForm({
    defaultValues: initial,
    canSubmitWhenInvalid: true, // a corrected form is checked again on sending
    validators: {
      onSubmit: ({ value }) => {
        const parsed = schemaNow().safeParse(read(value))
        if (parsed.success) return undefined
        return { fields: byLine(issuesOf(parsed.error), f => line(f, value)) } as never
      },
    },
    onSubmitInvalid: ({ value, formApi }) => {
      const parsed = schemaNow().safeParse(read(value))
      const shown = new Set(Object.keys(formApi.state.fieldMeta))
      // what no line of the form shows is said below it
      const other = parsed.error ? issuesOf(parsed.error).find(i => !shown.has(line(i.field, value))) : undefined
      trouble.value = other?.message ?? 'Something is missing or does not fit: see the marked lines'
    },
    onSubmit: async ({ value }) => {
      trouble.value = null
      server.value = {}
      const asked = await send(schemaNow().parse(read(value)) as z.infer<S>)
      if (asked.is === 'done') return void (await done(asked.value, value))
      if (asked.is === 'refused') server.value = byLine(asked.issues, f => line(f, value))
      trouble.value = sayTrouble(asked)
    },
  })
  const handleSubmit = form.handleSubmit
  // every line is judged anew each time: else a line still wrong would keep the words of the others back
  form.handleSubmit = async () => {
    for (const name of Object.keys(form.state.fieldMeta) as never[])
      form.setFieldMeta(name, meta => ({ ...meta, errorMap: { ...meta.errorMap, onSubmit: undefined } }))
    await handleSubmit()
  }
  return { form, trouble, server }
}

/** What a line of a form knows of it. */
export type AnyForm = { form: { Field: Component }; server: Ref<Record<string, string>> }

/** The same for what goes into the ledger: what is read is done at once, the outbox sends it. */
export const useEntryForm = <V extends Record<string, unknown>, S extends z.ZodType>(
  options: Options<V, S, z.infer<S>>,
) =>
  useContractForm<V, S, z.infer<S>>({
    ...options,
    send: value => Promise.resolve({ is: 'done', value }),
  })

const byLine = (issues: readonly { field: string; message: string }[], line: (field: string) => string) =>
  Object.fromEntries([...issues].reverse().map(i => [line(i.field), i.message]))
