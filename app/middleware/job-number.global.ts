/** An address of a job names it by its number: anything else is nowhere, and is said so. */
export default defineNuxtRouteMiddleware(to => {
  const number = to.params.number
  if (to.path.startsWith('/jobs/') && typeof number === 'string' && !/^[1-9]\d{0,9}$/.test(number))
    return abortNavigation(createError({ statusCode: 404, fatal: true }))
})
