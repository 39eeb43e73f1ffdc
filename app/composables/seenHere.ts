import { LikeHere } from '#core/http/records'
import type { JobState } from '#core/ledger/reduce'
import { figuresOfEvent, recordRule } from '#core/records/chapters'
import type { FrameKind } from '#core/standards/frames'
import { likesOf, questionOfLikes, type Like } from '#core/records/like'
import { standardOfRun } from '#core/records/runs'
import type { LikesHere } from './like'

/** What was answered, read and made comparable; null where it is not what this page knows. */
export function likesIn(
  raw: unknown,
  state: () => JobState,
  frame: FrameKind | null,
): { seen: LikeHere; likes: LikesHere } | null {
  const read = LikeHere.safeParse(raw)
  if (!read.success) return null
  const seen = read.data
  const of = (standard: string, figure: string): Like[] => {
    const rule = recordRule(figure)
    const here = seen.standards.find(s => s.standard === standard)?.figures.find(f => f.figure === figure)
    return rule ? likesOf(rule, standard, frame, here, seen.any.find(a => a.figure === figure)?.seen) : []
  }
  const likes: LikesHere = {
    of: (run, figure) => of(standardOfRun(state(), run), figure),
    standard: run => standardOfRun(state(), run),
    question: event => {
      for (const { standard, figure, value } of figuresOfEvent(event, state())) {
        const words = questionOfLikes(figure, value, of(standard, figure))
        if (words) return words
      }
      return null
    },
  }
  return { seen, likes }
}
