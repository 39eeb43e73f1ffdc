/** The demo's shop and people: invented, and their secrets published, so never in a database with real customers. */
export const DEMO_SHOP = { code: 'slipway', name: 'Slipway Cycle Bench', zone: 'Europe/Dublin' } as const

export const DEMO_PEOPLE = [
  { name: 'Ishbel', role: 'owner', password: 'quay-lantern-7', pin: '2468' },
  { name: 'Moss', role: 'mechanic', password: 'slack-tide-12', pin: '1357' },
  { name: 'Tarn', role: 'mechanic', password: 'harbour-mist-4', pin: '8080' },
  { name: 'Wren', role: 'trainee', password: null, pin: '4242' },
  { name: 'Fenella', role: 'trainee', password: null, pin: '5151' },
] as const

/** What the server is told of the demo, so that its sign-in page can show who to sign in as. */
export const DEMO_ENV = { OCHO_DEMO_SIGN_IN: JSON.stringify({ shop: DEMO_SHOP.code, people: DEMO_PEOPLE }) }
