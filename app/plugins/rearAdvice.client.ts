/**
 * A rear bench that is opened by its address needs its advice first of all: the worker compiles and rehearses while the
 * page is still being fetched and drawn.
 */
export default defineNuxtPlugin(() => {
  if (/^\/jobs\/\d+\/rear\/?$/.test(location.pathname))
    import('~/workers/useAdvice').then(
      ({ prepareAdvice }) => prepareAdvice(),
      () => undefined, // out of reach: the page asks again, and says so
    )
})
