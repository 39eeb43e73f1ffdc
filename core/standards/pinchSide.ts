/** Some derailleurs take the cable on either side of the pinch bolt, which changes the effective ratio by so much. `memory` */
export const PINCH_SIDE_FACTOR = { from: 1.1, to: 1.15 } as const
