/** Chain pitch, mm. `std` ISO 606 / ISO 9633: half an inch. */
export const CHAIN_PITCH_MM = 12.7
