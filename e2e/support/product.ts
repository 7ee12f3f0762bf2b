import { execFileSync } from 'node:child_process'
import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { freePort, ironing, ROOT, Running } from './command'

/**
 * Starts the product once for all tests, with a home of its own, and packs the sample world. While a
 * test is being written, IRONING_URL names a product that runs already.
 */
export default async function start(): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), 'ironing-e2e-'))
  // root's database runs as another account, which must be able to enter
  chmodSync(folder, 0o755)
  packWorld(join(folder, 'world'))
  if (process.env.IRONING_URL) return async () => rmSync(folder, { recursive: true, force: true })
  const env = { IRONING_HOME: join(folder, 'home'), IRONING_PORT: String(await freePort()) }
  const product = await Running.up('start', env)
  process.env.IRONING_URL = product.url
  return async () => {
    const { said } = await ironing(['stop'], env)
    await product.exited
    rmSync(folder, { recursive: true, force: true })
    if (!said.includes('has ended')) throw new Error(said)
  }
}

function packWorld(to: string): void {
  const tools = join(ROOT, 'demo/target/ironing-demo-0.1.0-tools.jar')
  execFileSync('java', ['-cp', tools, 'ironing.demo.DemoPacker', join(ROOT, 'demo/world'), to])
  process.env.IRONING_WORLD = to
}
