import { z } from 'zod'

/** What is written into a shop's trail, and how it is said. */
export const AUDIT_WORDS = {
  firstRun: 'made the shop',
  signIn: 'signed a device in',
  signOut: 'signed a device out',
  confirmed: 'typed the password again',
  joinCode: 'made a code for a device to join by',
  joined: 'joined by a code',
  reach: 'said who reaches this machine',
  deviceEnded: 'signed another device out',
  personAdded: 'added a person',
  personChanged: 'changed a person',
  personLeft: 'let a person go',
  secrets: 'gave new secrets',
  imported: 'took a file in',
  importBack: 'took back what a file had brought',
  exported: 'took a file out',
  customerExported: 'took out what is kept on a customer',
  customerErased: 'erased a customer',
  backupAsked: 'asked for a backup',
  restored: 'restored a backup',
} as const
export type AuditWhat = keyof typeof AUDIT_WORDS

export const AuditView = z.object({
  id: z.uuid(),
  /** When, who, on what, in words. */
  at: z.string(),
  person: z.string().nullable(),
  device: z.string().nullable(),
  words: z.string(),
  detail: z.string(),
})
export type AuditView = z.infer<typeof AuditView>

/** A row of the trail in words; one that a later version wrote keeps its own name. */
export const readAudit = (row: {
  id: string
  what: string
  detail: string
  at: string
  person: string | null
  device: string | null
}): AuditView => {
  const { what, ...rest } = row
  return { ...rest, words: what in AUDIT_WORDS ? AUDIT_WORDS[what as AuditWhat] : what }
}
