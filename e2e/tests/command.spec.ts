import { execFile } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { expect, test } from '@playwright/test'
import { freePort, ironing, ROOT, Running } from '../support/command'

const run = promisify(execFile)

/** Runs a few lines of bash with the command’s own functions at hand. */
async function bash(lines: string): Promise<{ code: number; said: string }> {
  const script = `set -euo pipefail; ROOT=${ROOT}; . scripts/machine.sh; . scripts/database.sh; ${lines}`
  try {
    const { stdout, stderr } = await run('bash', ['-c', script], { cwd: ROOT })
    return { code: 0, said: stdout + stderr }
  } catch (e) {
    const { code, stdout, stderr } = e as { code: number; stdout: string; stderr: string }
    return { code, said: stdout + stderr }
  }
}

function alive(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}

// each test has a product of its own, and two cores are few
test.describe.configure({ mode: 'serial', timeout: 400_000 })

test.describe('./ironing', () => {
  let home: string
  let env: Record<string, string>

  test.beforeEach(async () => {
    const folder = mkdtempSync(join(tmpdir(), 'ironing-command-'))
    chmodSync(folder, 0o755)
    home = join(folder, 'home')
    env = { IRONING_HOME: home, IRONING_PORT: String(await freePort()) }
  })

  test.afterEach(async () => {
    await ironing(['stop'], env)
    rmSync(join(home, '..'), { recursive: true, force: true })
  })

  const pids = () => [
    Number(readFileSync(join(home, 'server.pid'), 'utf8')),
    Number(readFileSync(join(home, 'postgres/data/postmaster.pid'), 'utf8').split('\n')[0]),
  ]

  const mods = async (url: string) => {
    const [origin, workspace] = [new URL(url).origin, url.split('/').at(-1)]
    const answer = await fetch(`${origin}/api/workspaces/${workspace}/library`)
    return ((await answer.json()) as { mods: unknown[] }).mods.length
  }

  test('demo brings the sample world in once; stop ends all of it; the next start has it as it was', async () => {
    const first = await Running.up('demo', env)
    expect(first.url).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/workspaces\/1$/)
    expect((await fetch(first.url)).status).toBe(200)
    expect(await mods(first.url)).toBe(14)
    const again = await ironing(['demo'], env)
    expect(again).toEqual({ code: 1, said: expect.stringContaining('./ironing stop ends it') })

    const started = pids()
    expect(await ironing(['stop'], env)).toEqual({ code: 0, said: 'Ironing has ended.\n' })
    await first.exited
    expect(started.filter(alive)).toEqual([])
    expect(await ironing(['stop'], env)).toEqual({ code: 0, said: 'Ironing does not run.\n' })

    const second = await Running.up('demo', env)
    expect(second.url).toBe(first.url)
    expect(await mods(second.url)).toBe(14)
    // what was done before the restart is undone after it: the demo's last step switched a layer off
    const workspace = `${new URL(second.url).origin}/api${new URL(second.url).pathname}`
    const off = async () => {
      const view = (await (await fetch(`${workspace}/layers`)).json()) as { layers: { on: boolean }[] }
      return view.layers.filter((l) => !l.on).length
    }
    expect(await off()).toBe(1)
    expect((await fetch(`${workspace}/undo`, { method: 'POST' })).status).toBe(200)
    expect(await off()).toBe(0)
    second.signal('SIGTERM')
    expect(await second.exited).toBe(143)
    expect(existsSync(join(home, 'ironing.pid'))).toBe(false)
  })

  test('Ctrl-C ends all of it; a start that was killed is cleared away by the next', async () => {
    const first = await Running.up('start', env)
    const started = pids()
    first.signal('SIGINT')
    expect(await first.exited).toBe(130)
    expect(started.filter(alive)).toEqual([])

    const killed = await Running.up('start', env)
    const left = pids()
    killed.signal('SIGKILL')
    await killed.exited
    expect(left.every(alive)).toBe(true)
    const next = await Running.up('start', env)
    expect(left.filter(alive)).toEqual([])
    expect((await fetch(`${next.url}/actuator/health`)).status).toBe(200)
  })

  test('a port that is taken is named, and nothing stays behind', async () => {
    const server = createServer().listen(Number(env.IRONING_PORT), '127.0.0.1')
    const { code, said } = await ironing(['start'], env)
    server.close()
    expect(code).toBe(1)
    expect(said).toContain(`port ${env.IRONING_PORT} is taken; set IRONING_PORT`)
    expect(existsSync(join(home, 'postgres/data/postmaster.pid'))).toBe(false)
  })

  test('a PostgreSQL server that is there already is used instead of a private one', async () => {
    const other = join(home, '../other')
    const { said } = await bash(`database_start '${other}' fsync=off; echo "$DB_URL"; echo "$DB_PID"`)
    const [url, pid] = said.trim().split('\n')
    try {
      const product = await Running.up('start', { ...env, IRONING_DB_URL: url ?? '' })
      expect((await fetch(`${product.url}/api/workspaces`)).status).toBe(200)
      expect(existsSync(join(home, 'postgres'))).toBe(false)
      await ironing(['stop'], env)
      expect(alive(Number(pid)), 'it is not ours to end').toBe(true)
    } finally {
      process.kill(Number(pid), 'SIGINT')
      await expect.poll(() => alive(Number(pid))).toBe(false)
    }
  })

  test('what the machine lacks is named with the one command to type, and the exit code is 2', async () => {
    const lacking = 'postgres_bin() { :; }; id() { echo 1000; }; require_packages'
    const { code, said } = await bash(lacking)
    expect(code).toBe(2)
    expect(said).toContain('sudo apt-get update && sudo apt-get install -y postgresql')
    const jdk = await bash(
      'command() { case $2 in java) return 1 ;; *) builtin command "$@" ;; esac; }; require_programs',
    )
    expect(jdk.code).toBe(2)
    expect(jdk.said).toContain('a JDK, version 17 or later')
  })

  test('data lies in the checkout, unless the account of the database cannot enter it', async () => {
    const checkout = mkdtempSync(join(tmpdir(), 'ironing-checkout-'))
    const ask = async () => (await bash(`ROOT='${checkout}'; default_home`)).said.trim()
    try {
      chmodSync(checkout, 0o700)
      expect(await ask()).toBe(
        process.getuid?.() === 0 ? '/var/lib/ironing' : join(checkout, '.ironing-home'),
      )
      chmodSync(checkout, 0o755)
      expect(await ask()).toBe(join(checkout, '.ironing-home'))
    } finally {
      rmSync(checkout, { recursive: true })
    }
  })

  test('a word that is none of its own shows what it can do', async () => {
    const { code, said } = await ironing(['wash'], env)
    expect(code).toBe(2)
    expect(said).toContain('./ironing demo')
  })
})
