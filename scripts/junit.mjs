// What runners of tests have written down as JUnit's XML, in words.
// node junit.mjs count FOLDER: how many tests there were.
// node junit.mjs slowest N FOLDER: the N that took longest, with their seconds.
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

const [what, ...rest] = process.argv.slice(2)
const folder = rest.at(-1)

function attribute(tag, name) {
  const text = tag.match(new RegExp(`\\s${name}="([^"]*)"`))?.[1] ?? ''
  return text.replace(/&(quot|lt|gt|apos|amp|#\d+);/g, (_, e) =>
    e.startsWith('#')
      ? String.fromCodePoint(Number(e.slice(1)))
      : { quot: '"', lt: '<', gt: '>', apos: "'", amp: '&' }[e],
  )
}

/** Every test of the files below the folder, each with what its runner says of it. */
function tests() {
  if (!existsSync(folder)) return []
  const files = readdirSync(folder, { recursive: true }).filter((f) => f.endsWith('.xml'))
  return files.flatMap((file) => {
    const text = readFileSync(join(folder, file), 'utf8')
    return [...text.matchAll(/<testcase\s[^>]*?(\/>|>[\s\S]*?<\/testcase>)/g)].map(([element]) => {
      const tag = element.slice(0, element.indexOf('>'))
      return {
        name: attribute(tag, 'name'),
        of: attribute(tag, 'classname').replace(/^ironing\./, ''),
        seconds: Number(attribute(tag, 'time')) || 0,
        skipped: element.includes('<skipped'),
        failed: /<(failure|error)[\s>]/.test(element),
      }
    })
  })
}

const all = tests()
if (what === 'count') {
  const failed = all.filter((t) => t.failed).length
  const skipped = all.filter((t) => t.skipped).length
  console.log(
    `${all.length} tests${failed ? `, ${failed} failed` : ''}${skipped ? `, ${skipped} skipped` : ''}`,
  )
} else {
  const slowest = all.sort((a, b) => b.seconds - a.seconds).slice(0, Number(rest[0]))
  console.log('The slowest:')
  for (const t of slowest) console.log(`${t.seconds.toFixed(1).padStart(7)} s   ${t.of}: ${t.name}`)
}
