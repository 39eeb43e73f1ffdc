/** Degrees to radians: degrees at the edges of core, radians inside. */
export const radians = (degrees: number): number => (degrees * Math.PI) / 180
/** Radians to degrees. */
export const degrees = (radiansValue: number): number => (radiansValue * 180) / Math.PI
