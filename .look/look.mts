import { chromium } from '@playwright/test'
import { buildDemo } from '/work/main/demo/build'
import { DEMO_ENV, DEMO_PEOPLE, DEMO_SHOP } from '/work/main/demo/people'
import { connect } from '/work/main/server/db/connect'
import { startServer } from '/work/main/ops/server'
import { throwawayCluster } from '/work/main/ops/testDatabase'
import { randomUUID } from 'node:crypto'
const { cluster, remove } = await throwawayCluster()
const db = connect(cluster.appUrl, 4); await buildDemo(db); await db.destroy()
const server = await startServer({ appUrl: cluster.appUrl, port: 0, env: DEMO_ENV })
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu'] })
const mod = await import(process.argv[2]!)
try { await mod.default({ server, browser, randomUUID, async page(w=1280,h=800,dark=false){ const p = await browser.newPage({ viewport:{width:w,height:h}, colorScheme: dark?'dark':'light' }); await p.request.post(`${server.url}/api/sign-in`,{data:{shop:DEMO_SHOP.code,name:DEMO_PEOPLE[0].name,password:DEMO_PEOPLE[0].password}}); return p }, async job(p:any,tag:string){ const {jobs}=await (await p.request.get(`${server.url}/api/floor`)).json(); return jobs.find((j:any)=>j.tag===tag).number } }) } finally { await browser.close(); await server.stop(); await remove() }
