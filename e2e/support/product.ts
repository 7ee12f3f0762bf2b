import { execFileSync } from 'node:child_process'
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { freePort, ironing, ROOT, Running } from './command'

/** A folder that goes when it is no longer needed; root's database runs as another account, which must be able to enter. */
export function folderFor(what: string): string {
  const folder = mkdtempSync(join(tmpdir(), `ironing-${what}-`))
  chmodSync(folder, 0o755)
  return folder
}

/** Packs the sample world, once for all tests. */
export default function packWorld(): () => void {
  const folder = folderFor('packed')
  const target = join(ROOT, 'demo/target')
  const classPath = `${join(target, 'classes')}:${readFileSync(join(target, 'classpath'), 'utf8')}`
  execFileSync('java', ['-cp', classPath, 'ironing.demo.DemoPacker', join(ROOT, 'demo/world'), folder])
  process.env.IRONING_WORLD = folder
  return () => rmSync(folder, { recursive: true, force: true })
}

/**
 * Starts the product with a home of its own for as long as it is used. While a test is being written,
 * IRONING_URL names one that runs already.
 */
export async function withProduct(use: (url: string) => Promise<void>): Promise<void> {
  if (process.env.IRONING_URL) return use(process.env.IRONING_URL)
  const folder = folderFor('home')
  const env = { IRONING_HOME: join(folder, 'home'), IRONING_PORT: String(await freePort()) }
  const product = await Running.up('start', env)
  await use(product.url)
  const { said } = await ironing(['stop'], env)
  await product.exited
  rmSync(folder, { recursive: true, force: true })
  if (!said.includes('has ended')) throw new Error(said)
}
