import 'vitest'

/** What the tests' global setup gives: addresses of a cluster of their own. */
declare module 'vitest' {
  export interface ProvidedContext {
    ownerUrl: string
    appUrl: string
  }
}
