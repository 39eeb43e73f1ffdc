import type { Stage } from '#core/procedure/stages'

/** Where a stage of a job is worked on. */
export function stageLink(job: number, stage: Stage): string {
  if (stage === 'index') return `/jobs/${job}/rear`
  return stage === 'handBack' ? `/jobs/${job}/sheet` : `/jobs/${job}/stage/${stage}`
}
