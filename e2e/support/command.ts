import { type ChildProcess, execFile, spawn } from 'node:child_process'
import { createServer } from 'node:net'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '../..')
const PATIENCE_MS = 300_000

/** What a command said and how it ended. */
export interface Ended {
  code: number
  said: string
}

/** Runs ./ironing to its end. */
export async function ironing(args: string[], env: Record<string, string>): Promise<Ended> {
  try {
    const { stdout, stderr } = await promisify(execFile)(join(ROOT, 'ironing'), args, {
      env: { ...process.env, ...env },
    })
    return { code: 0, said: stdout + stderr }
  } catch (e) {
    const { code, stdout, stderr } = e as { code: number; stdout: string; stderr: string }
    return { code, said: stdout + stderr }
  }
}

/** ./ironing demo or start as a process that goes on, once it has printed its address. */
export class Running {
  private readonly process: ChildProcess
  private said = ''
  readonly exited: Promise<number | null>

  private constructor(process: ChildProcess) {
    this.process = process
    process.stdout?.on('data', (d) => {
      this.said += d
    })
    process.stderr?.on('data', (d) => {
      this.said += d
    })
    this.exited = new Promise((done) => process.on('exit', (code, signal) => done(code ?? (signal ? -1 : 0))))
  }

  static async up(what: 'demo' | 'start', env: Record<string, string>): Promise<Running> {
    const child = spawn(join(ROOT, 'ironing'), [what], {
      env: { ...process.env, ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    const running = new Running(child)
    const end = Date.now() + PATIENCE_MS
    while (!/^http:\S+$/m.test(running.said)) {
      if (child.exitCode !== null) throw new Error(`./ironing ${what} has ended: ${running.said}`)
      if (Date.now() > end) throw new Error(`./ironing ${what} does not come up: ${running.said}`)
      await new Promise((wait) => setTimeout(wait, 100))
    }
    return running
  }

  get url(): string {
    return this.said.match(/^http:\S+$/m)?.[0] ?? ''
  }

  get pid(): number {
    return this.process.pid ?? 0
  }

  signal(name: NodeJS.Signals): void {
    this.process.kill(name)
  }
}

export function freePort(): Promise<number> {
  return new Promise((done, failed) => {
    const server = createServer()
    server.on('error', failed)
    server.listen(0, '127.0.0.1', () => {
      const address = server.address()
      server.close(() => done(typeof address === 'object' && address ? address.port : 0))
    })
  })
}
