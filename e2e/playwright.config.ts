import { defineConfig } from '@playwright/test'
import args from './support/chromium-args.json' with { type: 'json' }

/** Drives Debian's own headless Chromium against the product as ./ironing starts it. */
export default defineConfig({
  testDir: 'tests',
  globalSetup: './support/product.ts',
  workers: 2,
  fullyParallel: true,
  // what failed is run once more, to have a trace of it; it has failed all the same
  retries: 1,
  failOnFlakyTests: true,
  timeout: 600_000,
  expect: { timeout: 120_000 },
  reporter: [['list'], ['junit']],
  // the command's own tests take longest: they come first
  projects: [
    { name: 'command', testMatch: 'command.spec.ts' },
    { name: 'page', testIgnore: 'command.spec.ts' },
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 120_000,
    trace: 'on-first-retry',
    launchOptions: {
      executablePath: process.env.IRONING_CHROMIUM ?? '/usr/bin/chromium-headless-shell',
      args,
    },
  },
})
