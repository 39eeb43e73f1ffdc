/** Gauge radius of a 622 mm rim, mm, for which the tolerances are said. `std` ISO 5775 bead seat diameter. */
export const GAUGE_RADIUS_MM = 311
