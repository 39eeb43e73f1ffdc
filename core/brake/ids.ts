/**
 * What the ledger may name of a brake: checks with their outcomes, the first how it is when nothing is wrong; faults;
 * steps of fitting. Apart from their words, so that a page that only reads the log need not load them. A test holds both together.
 */
export const BRAKE_CHECK_OUTCOMES: Readonly<Record<string, readonly string[]>> = {
  'lever': ['firm', 'bar', 'nothing', 'wooden', 'stiff'], 'arms': ['alike', 'one', 'dead', 'slow', 'still'], 'noise': ['quiet', 'squeals', 'grinds', 'pulses'], 'spin': ['free', 'wobbles', 'side'],
  'noodle': ['home', 'out'], 'slot': ['through', 'beside'], 'springs': ['on', 'off'], 'pads': ['fine', 'worn', 'glazed', 'off-track'], 'anchor': ['holds', 'slips'], 'wire': ['whole', 'broken'], 'seated': ['home', 'not'],
  'wire-off': ['free', 'drags', 'lever'], 'arm-off': ['free', 'tight'], 'class': ['fits', 'other'], 'body': ['fast', 'turned', 'strap'], 'straddle': ['square', 'high', 'low'], 'arm-rest': ['rest', 'preloaded', 'far'], 'backpedal': ['short', 'far', 'none'],
}
export const BRAKE_FAULT_IDS: ReadonlySet<string> = new Set(['noodle-out', 'beside-slot', 'spring-off', 'unequal', 'slipped', 'pads-worn', 'wire-broken', 'not-home', 'wheel', 'glazed', 'toe', 'drag', 'lever-sticks', 'lever-class', 'pivot-tight', 'turned', 'release-open', 'yoke-high', 'yoke-low', 'far', 'preloaded', 'not-central', 'rotor-bent', 'strap', 'free-play', 'worn-inside'])
export const BRAKE_STEP_IDS: ReadonlySet<string> = new Set(['screw-proud', 'mounted', 'wheel', 'housing', 'inner', 'pads-roughly', 'centred', 'pads', 'clamped', 'fine', 'looked', 'torqued', 'capped', 'noodle', 'let-out', 'pumped', 'yoke', 'catch', 'rest', 'reaction', 'free', 'bite', 'strap', 'backpedal'])
