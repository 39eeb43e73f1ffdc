import { brake } from '../brake/chapter'
import { cable } from '../cable/chapter'
import { front } from '../front/chapter'
import { hub } from '../hub/chapter'
import { job } from '../job/chapter'
import { rear } from '../rear/chapter'

/** Every chapter of the ledger, in the order the sheet tells them. A new bench is one more line here. */
export const CHAPTERS = { rear, front, cable, brake, hub, job } as const
export type ChapterName = keyof typeof CHAPTERS
