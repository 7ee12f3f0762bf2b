import { type ChildProcess, spawn } from 'node:child_process'
import { join } from 'node:path'
import { ROOT } from './command'

/** The demo's catalogue as a server of its own, which goes wrong where a test tells it to. */
export class CatalogueStandIn {
  private constructor(
    private readonly process: ChildProcess,
    readonly url: string,
  ) {}

  static async up(): Promise<CatalogueStandIn> {
    const jar = join(ROOT, 'standins/target/game.jar')
    const folder = join(process.env.IRONING_WORLD ?? '', 'catalogue')
    const main = 'ironing.standins.catalogue.CatalogueServer'
    const child = spawn('java', ['-XX:TieredStopAtLevel=1', '-Xmx64m', '-cp', jar, main, folder, '0'], {
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    const url = await new Promise<string>((done, failed) => {
      let said = ''
      child.stdout?.on('data', (d) => {
        said += d
        if (said.includes('\n')) done(said.trim())
      })
      child.on('exit', () => failed(new Error('the stand-in catalogue has ended')))
    })
    return new CatalogueStandIn(child, url)
  }

  /** Makes a path go wrong, such as `kind=cut&amount=100&times=1`. */
  async fail(path: string, fault: string): Promise<void> {
    await fetch(`${this.url}/-/fault${path}?${fault}`, { method: 'PUT' })
  }

  async mend(path: string): Promise<void> {
    await fetch(`${this.url}/-/fault${path}`, { method: 'DELETE' })
  }

  end(): void {
    this.process.kill('SIGTERM')
  }
}
