/** Chain line: from the bike's middle plane to the middle of the rings, mm. `memory` */
export const CHAIN_LINE_MM = [
  { id: 'road-double', what: 'road double', from: 43.5, to: 43.5 },
  { id: 'gravel', what: 'gravel', from: 44, to: 47 },
  { id: 'road-triple', what: 'road triple', from: 45, to: 45 },
  { id: 'triple', what: 'triple', from: 47.5, to: 50 },
  { id: 'wide-single', what: 'wide single', from: 52, to: 55 },
  { id: 'hub', what: 'single speed and hub gear', from: 42, to: 42 },
] as const
