/**
 * What core offers to tests and callers outside: the contract. Inside the project import the module that holds the
 * rule.
 */
export { advise, consider, type AdviseOptions } from './advice/advise'
export type { Advice, AdviceOptions, AdviceOrder, Move } from './advice/contract'
export type { Between, Placing } from './rear/asSeen'
export type { BenchEvent, Part, Screw } from './rear/benchEvents'
export type { Cause } from './response/causes'
export type { Heard } from './response/heard'
export type { RearSetup } from './response/setup'
export { fitHanger, type HangerFit, type HangerReading } from './rear/hanger'
export { guideGap } from './rear/gap'
export { matchDrivetrain, type Match, type MatchParts } from './standards/match'
export { capstan } from './cable/capstan'
