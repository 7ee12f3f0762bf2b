import type { Schema } from '../api/client'
import { bytes, count, timeWords } from '../ui/text'

export type Download = Schema['DownloadView']

/** How far one is, in words. */
export function downloadWords(d: Download): string {
  const far = `${bytes(d.received)} of ${bytes(d.sizeBytes)}`
  switch (d.state) {
    case 'DONE':
      return bytes(d.sizeBytes)
    case 'RUNNING':
      return d.bytesASecond > 0
        ? `${far}, ${bytes(d.bytesASecond)}/s, ${timeWords(((d.sizeBytes - d.received) * 1000) / d.bytesASecond)} left`
        : far
    case 'PAUSED':
      return `paused at ${far}`
    case 'RESTING':
      return `rests at ${far}`
    case 'FAILED':
      return 'failed'
    default:
      return 'waits for its turn'
  }
}

/** All of them in a line. */
export function queueWords(all: readonly Download[]): string {
  const open = all.filter((d) => d.state !== 'DONE' && d.state !== 'FAILED').length
  return open > 0
    ? `${count(open, 'download')} on the way`
    : `${count(all.length, 'download')}, none on the way`
}
