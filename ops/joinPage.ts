import { createServer, type Server } from 'node:http'
import type { Authority } from './authority'

const CERTIFICATE = '/ocho-authority.crt'

/**
 * The plain page a tablet reads before it trusts the shop's machine: the authority's certificate, its fingerprint and
 * the three steps. Nothing else is served here, no code is taken and nothing is set: whoever listens in or stands
 * between learns what is public anyway, and what they put in its place shows in the fingerprint.
 */
export async function serveJoinPage(options: {
  port: number
  host: string
  authority: Pick<Authority, 'der' | 'fingerprint' | 'words'>
  secure(): string | null
}): Promise<Server> {
  const server = createServer((request, response) => {
    const path = (request.url ?? '/').split('?')[0]
    const answer = (status: number, type: string, body: string | Buffer, more: Record<string, string> = {}) => {
      response.writeHead(status, {
        'content-type': type,
        'cache-control': 'no-store',
        'x-content-type-options': 'nosniff',
        'referrer-policy': 'no-referrer',
        'content-security-policy':
          "default-src 'none'; style-src 'unsafe-inline'; base-uri 'none'; frame-ancestors 'none'",
        ...more,
      })
      response.end(request.method === 'HEAD' ? undefined : body)
    }
    if (request.method !== 'GET' && request.method !== 'HEAD')
      return answer(405, 'text/plain; charset=utf-8', 'This page is only read')
    if (path === '/') return answer(200, 'text/html; charset=utf-8', page(options.authority, options.secure()))
    if (path === CERTIFICATE)
      return answer(200, 'application/x-x509-ca-cert', options.authority.der, {
        'content-disposition': 'attachment; filename="ocho-authority.crt"',
      })
    answer(404, 'text/plain; charset=utf-8', 'There is nothing else here: open the address without what follows it')
  })
  server.requestTimeout = 10_000
  server.headersTimeout = 5_000
  server.maxConnections = 100
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(options.port, options.host, resolve)
  })
  return server
}

/** A fingerprint as devices show it: pairs with colons. */
const pairs = (hex: string): string => hex.toUpperCase().match(/../g)!.join(':')

const page = (authority: Pick<Authority, 'fingerprint' | 'words'>, secure: string | null): string =>
  /* HTML */ `<!doctype html>
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>Trust the shop's machine · Ocho</title>
        <style>
          :root {
            color-scheme: light dark;
            --ink: #16211f;
            --soft: #4b5a56;
            --paper: #edf0ee;
            --panel: #fff;
            --act: #0e3b35;
            --on: #fff;
            --rule: #c6cfcb;
          }
          @media (prefers-color-scheme: dark) {
            :root {
              --ink: #e8efec;
              --soft: #a9b8b3;
              --paper: #0f1917;
              --panel: #172421;
              --act: #8fd9c6;
              --on: #08201b;
              --rule: #33443f;
            }
          }
          * {
            box-sizing: border-box;
          }
          body {
            margin: 0;
            background: var(--paper);
            color: var(--ink);
            font:
              17px/1.5 system-ui,
              sans-serif;
          }
          main {
            max-width: 40rem;
            margin: 0 auto;
            padding: 1.25rem 1.25rem 3rem;
          }
          h1 {
            font-size: 1.6rem;
            line-height: 1.2;
            margin: 0.5rem 0;
          }
          h2 {
            font-size: 1.1rem;
            margin: 1.75rem 0 0.25rem;
          }
          p {
            margin: 0.4rem 0;
          }
          .soft {
            color: var(--soft);
            font-size: 0.95rem;
          }
          .act {
            display: block;
            padding: 0.9rem 1rem;
            margin: 0.6rem 0;
            border-radius: 0.4rem;
            background: var(--act);
            color: var(--on);
            font-weight: 700;
            text-align: center;
            text-decoration: none;
          }
          details {
            background: var(--panel);
            border: 1px solid var(--rule);
            border-radius: 0.4rem;
            padding: 0 0.9rem;
            margin: 0.5rem 0;
          }
          summary {
            min-height: 2.9rem;
            display: flex;
            align-items: center;
            font-weight: 700;
            cursor: pointer;
          }
          summary::before {
            content: '+';
            width: 1.4rem;
            font-weight: 400;
          }
          details[open] summary::before {
            content: '–';
          }
          ol {
            margin: 0 0 0.8rem;
            padding-left: 1.4rem;
          }
          .words {
            font-size: 1.25rem;
            font-weight: 700;
          }
          code {
            font-family: ui-monospace, monospace;
            font-size: 0.8rem;
            overflow-wrap: anywhere;
          }
        </style>
      </head>
      <body>
        <main>
          <h1>Trust the shop's machine</h1>
          <p>
            Ocho runs on a machine in this shop and vouches for itself. This device believes it once you tell it to, and
            from then on nobody in between can read or change what you tap.
          </p>
          <h2>1. Take its certificate</h2>
          <a class="act" href="${CERTIFICATE}">Get the certificate</a>
          <h2>2. Tell this device to trust it</h2>
          <p class="soft">What it says after the download shows which way:</p>
          <details>
            <summary>“Profile downloaded”</summary>
            <ol>
              <li>Settings, <b>Profile downloaded</b>, <b>Install</b>.</li>
              <li>Settings, <b>General</b>, <b>About</b>, at the very end <b>Certificate trust settings</b>.</li>
              <li>Switch <b>Ocho</b> on.</li>
            </ol>
          </details>
          <details>
            <summary>“Install it in Settings”, or nothing</summary>
            <ol>
              <li>Settings: search for <b>CA certificate</b>.</li>
              <li><b>Install anyway</b>, and unlock the device.</li>
              <li>Choose <b>ocho-authority.crt</b> among the downloads.</li>
            </ol>
          </details>
          <details>
            <summary>It is a computer</summary>
            <ol>
              <li>Open the file that was downloaded.</li>
              <li>
                Install it among the <b>trusted root authorities</b> of this user (or <b>always trust</b> it). A browser
                that keeps its own list has it under <b>certificates</b> in its settings.
              </li>
              <li>Close the browser and open it again.</li>
            </ol>
          </details>
          <p>
            Before you say yes, look at the certificate's <b>SHA-256 fingerprint</b> on this device and compare it with
            the one on the owner's screen:
          </p>
          <p class="words">${authority.words.join(' ')}</p>
          <p><code>${pairs(authority.fingerprint)}</code></p>
          <p class="soft">
            If the device shows another one, somebody stands in between: do not go on, and tell the owner.
          </p>
          <h2>3. Join</h2>
          <p>
            Scan the <b>second</b> square on the owner's
            screen${secure ? `, or open <b>${secure}/join</b> and type the code under it` : ''}.
          </p>
          ${secure ? `<a class="act" href="${secure}/join">It is trusted: go on</a>` : ''}
          <p class="soft">
            A warning there means that step 2 is not done yet. It speaks for this shop's network alone: for names and
            addresses of home networks, and no site on the internet.
          </p>
        </main>
      </body>
    </html> `
