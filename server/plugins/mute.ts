/**
 * Whoever listened to the log may go before the server does: a terminal that is closed, a launcher that is killed. What
 * cannot be said is then left unsaid. Without this each failed line would be an error to be said, which fails again,
 * for ever.
 */
export default defineNitroPlugin(() => {
  for (const out of [process.stdout, process.stderr]) out.on('error', () => undefined)
})
