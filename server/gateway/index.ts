import type { Outgoing, Went } from '../db/messages'
import { smtpGateway } from './smtp'
import { standIn } from './standIn'

/** What sends messages to customers. One small interface, so that a shop can plug in what it has. */
export type Gateway = {
  name: string
  /** Nothing leaves the machine: said so wherever it is named. */
  standIn: boolean
  send(message: Outgoing, subject: string): Promise<Went>
}

/** The gateway of this machine: mail where `OCHO_SMTP_URL` says how, else the stand-in that keeps everything here. */
export const gatewayOf = (env: NodeJS.ProcessEnv): Gateway =>
  env.OCHO_SMTP_URL ? smtpGateway(env.OCHO_SMTP_URL, env.OCHO_MAIL_FROM) : standIn

let here: Gateway | undefined
export const gateway = (): Gateway => (here ??= gatewayOf(process.env))
