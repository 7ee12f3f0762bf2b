/** Words and numbers as the whole page writes them. */

/** 1,204. Not by Intl: its first use loads tables, which holds up the first screen by tens of milliseconds. */
export function number(n: number): string {
  return String(n).replace(/\B(?=(\d{3})+(?!\d))/g, ',')
}

/** “1 file”, “1,204 files”. */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${number(n)} ${n === 1 ? one : many}`
}

/** Bytes with three digits at most: 946 B, 4.4 KiB, 58 MiB. */
export function bytes(n: number): string {
  if (n < 1024) return `${n} B`
  const units = ['KiB', 'MiB', 'GiB', 'TiB']
  let value = n
  let unit = -1
  while (value >= 1024 && unit < units.length - 1) {
    value /= 1024
    unit++
  }
  return `${value < 10 ? value.toFixed(1) : Math.round(value)} ${units[unit]}`
}

/** “a, b and c” */
export function list(items: readonly string[]): string {
  if (items.length < 2) return items.join('')
  return `${items.slice(0, -1).join(', ')} and ${items.at(-1)}`
}

/** A path cut in the middle, so that its folder and its end stay readable. */
export function cutMiddle(path: string, most: number): string {
  if (path.length <= most) return path
  const tail = Math.ceil((most - 1) * 0.62)
  return `${path.slice(0, most - 1 - tail)}…${path.slice(-tail)}`
}

/** “today 21:40”, “yesterday 09:05”, “12 November 21:40”. */
export function when(iso: string, now = new Date()): string {
  const date = new Date(iso)
  const time = date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  const days = Math.round((startOfDay(now) - startOfDay(date)) / 86_400_000)
  if (days === 0) return `today ${time}`
  if (days === 1) return `yesterday ${time}`
  const year = date.getFullYear() === now.getFullYear() ? undefined : 'numeric'
  return `${date.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year })} ${time}`
}

function startOfDay(d: Date): number {
  return new Date(d.getFullYear(), d.getMonth(), d.getDate()).getTime()
}

/** How long something took: 0.4 s, 14 s, 3 min. */
export function duration(from: string, to: string): string {
  return timeWords(Date.parse(to) - Date.parse(from))
}

/** A length of time, in seconds or minutes. */
export function timeWords(ms: number): string {
  const seconds = ms / 1000
  if (seconds < 10) return `${Math.max(0, seconds).toFixed(1)} s`
  return seconds < 100 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`
}
