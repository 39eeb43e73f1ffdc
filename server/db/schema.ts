import type { ColumnType, Generated } from 'kysely'
import type { Riding } from '#core/standards/riding'

type Fixed<T> = ColumnType<T, T, never>
type Stamp = ColumnType<Date, Date | string | undefined, Date | string>

/** The tables as the application's role sees them; `never` where it may not update. */
export type Database = {
  'gate.first_run': { code_hash: Fixed<string>; used_at: ColumnType<Date, never, never> }
  shop: {
    shop: Fixed<string>
    code: Fixed<string>
    name: string
    zone: string
    demo: Fixed<boolean>
    schools: ColumnType<unknown, never, string>
    stands: Generated<number>
    next_job: Generated<number>
    /** Visits' records are to be written anew, by a later version's rules. */
    records_stale: Generated<boolean>
    /** How recalls are told: gateway, quiet hours, places a day. */
    desk: ColumnType<unknown, never, string>
    created_at: Stamp
  }
  person: {
    shop: Fixed<string>
    id: Fixed<string>
    name: string
    role: 'owner' | 'mechanic' | 'trainee'
    password_hash: string | null
    pin_hash: string
    schools: ColumnType<unknown, never, string>
    active: Generated<boolean>
    /** A mechanic may see what they practised. */
    shows_practice: Generated<boolean>
    created_at: Stamp
  }
  session: {
    shop: Fixed<string>
    id: Fixed<string>
    token_hash: Fixed<string>
    device: Fixed<string>
    person: string | null
    created_at: Stamp
    last_seen_at: Stamp
    revoked_at: ColumnType<Date | null, undefined, Date>
    opened_by: Fixed<string | null>
    confirmed_at: ColumnType<Date | null, Date | undefined, Date | null>
  }
  unlock: { shop: Fixed<string>; session: Fixed<string>; person: Fixed<string>; last_tap_at: Stamp }
  joining: {
    shop: Fixed<string>
    id: Fixed<string>
    code_hash: Fixed<string>
    made_by: Fixed<string>
    made_at: ColumnType<Date, never, never>
    expires_at: ColumnType<Date, Date, never>
    used_at: ColumnType<Date | null, undefined, Date>
    session: ColumnType<string | null, undefined, string>
  }
  customer: {
    shop: Fixed<string>
    id: Fixed<string>
    name: string
    contact: string
    created_at: Stamp
    /** Erased at their wish. */
    erased_at: ColumnType<Date | null, undefined, Date>
    /** Wants no messages. */
    no_messages: Generated<boolean>
  }
  bike: {
    shop: Fixed<string>
    id: Fixed<string>
    customer: Fixed<string>
    name: string
    frame_number: string
    frame_kind: string | null
    /** The bike that this one turned out to be. */
    merged_into: ColumnType<string | null, undefined, string | null>
    /** What the eye counted when it was last taken in. */
    seen: ColumnType<unknown, string | null | undefined, string | null>
    created_at: Stamp
  }
  job: {
    shop: Fixed<string>
    id: Fixed<string>
    number: Fixed<number>
    tag: string
    bike: string
    complaint: string
    promised_at: ColumnType<Date, Date | string, Date | string>
    sprockets: number
    /** Its stock drivetrain, by the shifter's row of the table. */
    drivetrain: ColumnType<string | null, string | null | undefined, string | null>
    place: Generated<'rack' | 'stand' | 'door' | 'gone'>
    stand: number | null
    known_job: Fixed<string | null>
    created_at: Stamp
    closed_at: ColumnType<Date | null, Date | string | null | undefined, Date | string | null>
    /** What its customer must be called for: something failed after it was handed back. */
    call: ColumnType<string | null, undefined, string | null>
    /** What the job waits for, if anything. */
    waits: ColumnType<string | null, undefined, string | null>
  }
  job_edit: {
    shop: Fixed<string>
    id: Fixed<string>
    job: Fixed<string>
    field: Fixed<string>
    was: string
    person: Fixed<string>
    made_at: Stamp
  }
  event: {
    shop: Fixed<string>
    id: Fixed<string>
    job: Fixed<string>
    seq: Fixed<number>
    person: Fixed<string>
    session: Fixed<string | null>
    signed_by: Fixed<string | null>
    verified: Fixed<boolean>
    v: Fixed<number>
    at: ColumnType<Date, Date | string, never>
    based_on: Fixed<number>
    received_at: ColumnType<Date, never, never>
    body: ColumnType<unknown, string, never>
    hash: ColumnType<Buffer, never, never>
  }
  note: {
    shop: Fixed<string>
    id: Fixed<string>
    job: Fixed<string>
    person: Fixed<string>
    text: string
    created_at: Stamp
  }
  sheet: {
    shop: Fixed<string>
    id: Fixed<string>
    job: Fixed<string>
    bike: string
    closed_at: ColumnType<Date, Date | string, never>
    entry: Fixed<string | null>
    body: ColumnType<unknown, string, never>
    minutes: ColumnType<number | null, number | null | undefined, never>
    work: ColumnType<string[], string[] | undefined, never>
  }
  shop_value: {
    shop: Fixed<string>
    id: Fixed<string>
    n: ColumnType<string, never, never>
    kind: Fixed<string>
    entry: Fixed<string>
    figure: Fixed<string>
    value: ColumnType<unknown, string | null, never>
    note: Fixed<string>
    person: Fixed<string>
    at: ColumnType<Date, Date | string | undefined, never>
    taken_in: ColumnType<string | null, string | null | undefined, never>
  }
  record: {
    shop: Fixed<string>
    id: Fixed<string>
    job: Fixed<string | null>
    bike: string
    standard: Fixed<string>
    figure: Fixed<string>
    frame: Fixed<string | null>
    value: Fixed<number>
    at: ColumnType<Date, Date | string, never>
    latest: ColumnType<boolean, boolean | undefined, boolean>
    origin: Fixed<string | null>
    taken_in: ColumnType<string | null, string | null | undefined, never>
  }
  taken_in: {
    shop: Fixed<string>
    id: Fixed<string>
    person: Fixed<string>
    at: ColumnType<Date, never, never>
    records: Fixed<number>
    claims: Fixed<number>
    taken_back_at: ColumnType<Date | null, undefined, Date>
  }
  housing_stock: {
    shop: Fixed<string>
    id: Fixed<string>
    kind: Fixed<string>
    length_mm: Fixed<number>
    roll: Fixed<boolean>
    label: Fixed<string>
    cut_from: Fixed<string | null>
    person: Fixed<string>
    made_at: Stamp
    used_at: ColumnType<Date | null, undefined, Date | null>
    cut: ColumnType<string | null, undefined, string | null>
  }
  run_template: {
    shop: Fixed<string>
    id: Fixed<string>
    name: Fixed<string>
    runs: ColumnType<unknown, string, never>
    person: Fixed<string>
    made_at: Stamp
    gone_at: ColumnType<Date | null, undefined, Date>
  }
  audit: {
    shop: Fixed<string>
    id: Fixed<string>
    n: ColumnType<string, never, never>
    what: Fixed<string>
    detail: Fixed<string>
    person: Fixed<string | null>
    session: Fixed<string | null>
    at: ColumnType<Date, never, never>
  }
  photo: {
    shop: Fixed<string>
    id: Fixed<string>
    job: Fixed<string>
    run: Fixed<string>
    mime: Fixed<string>
    bytes: ColumnType<Buffer | null, Buffer, null>
    size: ColumnType<number | null, never, never>
    person: Fixed<string>
    made_at: Stamp
    gone_at: ColumnType<Date | null, undefined, Date>
  }
  recall: {
    shop: Fixed<string>
    id: Fixed<string>
    job: Fixed<string>
    due_on: ColumnType<string, string, string>
    done_at: ColumnType<Date | null, undefined, Date | null>
    why: ColumnType<string, string | undefined, never>
    state: ColumnType<'due' | 'came' | 'done' | 'notneeded', undefined, 'due' | 'came' | 'done' | 'notneeded'>
    /** When it was first due, where it was put off since. */
    first_due_on: ColumnType<string | null, undefined, string>
    /** What the rider or the bench reported: turns of the barrel, + out, and words. */
    turns: ColumnType<number | null, undefined, number | null>
    report: ColumnType<string, undefined, string>
    /** What was forecast as it was booked. */
    expected: ColumnType<unknown, string | null | undefined, never>
  }
  settling: {
    shop: Fixed<string>
    id: Fixed<string>
    job: Fixed<string>
    housing_mm: Fixed<number | null>
    bedded: Fixed<boolean>
    riding: Fixed<Riding | null>
    days: Fixed<number>
    turns: Fixed<number>
    at: ColumnType<Date, Date | string, never>
  }
  habit: {
    shop: Fixed<string>
    job: Fixed<string>
    at: ColumnType<Date, Date | string, never>
    frame: Fixed<string | null>
    cable_days: Fixed<number | null>
    back: Fixed<boolean>
    new_cable: Fixed<boolean>
    found: Fixed<string[]>
    friction_mm: Fixed<number | null>
    stop_mm: Fixed<number | null>
    stop_sd: Fixed<number | null>
  }
  practice: {
    shop: Fixed<string>
    id: Fixed<string>
    person: Fixed<string>
    at: ColumnType<Date, Date | string, never>
    body: ColumnType<unknown, string, never>
  }
  sense: {
    shop: Fixed<string>
    person: Fixed<string>
    job: Fixed<string>
    at: ColumnType<Date, Date | string, never>
    reports: Fixed<number>
    wrong: Fixed<number>
    looks: Fixed<number>
    squared: Fixed<number>
  }
  message: {
    shop: Fixed<string>
    id: Fixed<string>
    recall: Fixed<string>
    customer: Fixed<string>
    way: Fixed<string>
    address: string
    body: string
    state: Generated<'queued' | 'sending' | 'sent' | 'failed' | 'answered' | 'withdrawn'>
    not_before: Stamp
    tries: Generated<number>
    trouble: Generated<string>
    answer: Generated<string>
    person: Fixed<string>
    made_at: ColumnType<Date, Date | undefined, never>
    sent_at: ColumnType<Date | null, undefined, Date | null>
    answered_at: ColumnType<Date | null, undefined, Date>
  }
  calendar: {
    shop: Fixed<string>
    id: Fixed<string>
    token_hash: Fixed<string>
    person: Fixed<string>
    made_at: ColumnType<Date, Date | undefined, never>
    seen_at: ColumnType<Date | null, undefined, Date>
    revoked_at: ColumnType<Date | null, undefined, Date>
  }
}
