import { createTransport } from 'nodemailer'
import type { Gateway } from './index'

/** Nobody waits for a mail server longer than this. */
const TIMEOUT_MS = 20_000
const PERMANENT = (code: number | undefined) => code !== undefined && code >= 500 && code < 600

/**
 * Sends by a mail server (RFC 5321, through the standard package). A refusal with a 5xx is for good, anything else is
 * tried again.
 */
export function smtpGateway(url: string, from = 'ocho@localhost'): Gateway {
  const transport = createTransport(url, { from })
  Object.assign(transport.options, {
    connectionTimeout: TIMEOUT_MS,
    greetingTimeout: TIMEOUT_MS,
    socketTimeout: TIMEOUT_MS,
  })
  return {
    name: 'Mail server',
    standIn: false,
    async send({ way, address, body }, subject) {
      if (way !== 'mail') return { is: 'refused', why: 'The mail server sends no text messages: phone them' }
      try {
        await transport.sendMail({ from, to: address, subject, text: body })
        return { is: 'sent' }
      } catch (error) {
        const { responseCode, message } = error as { responseCode?: number; message: string }
        return PERMANENT(responseCode)
          ? { is: 'refused', why: `The mail server refused it: ${message}` }
          : { is: 'later', why: `The mail server did not take it: ${message}` }
      }
    },
  }
}
