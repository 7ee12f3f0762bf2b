/** A text, or where it is none. */
export type Decoded = { text: string } | { line: number; byte: number }

/**
 * Reads bytes as UTF-8 without replacing anything: what is no UTF-8 is told by its line, and by its byte on it,
 * both from one on.
 */
export function decodeUtf8(bytes: Uint8Array): Decoded {
  const whole = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true })
  try {
    return { text: whole.decode(bytes) }
  } catch {
    // what is sound up to some byte is so up to each one before it
    let sound = 0
    let broken = bytes.length
    while (broken - sound > 1) {
      const middle = (sound + broken) >> 1
      if (isSound(bytes.subarray(0, middle))) sound = middle
      else broken = middle
    }
    const start = bytes.subarray(0, sound).lastIndexOf(10) + 1
    const line = bytes.subarray(0, sound).reduce((n, b) => n + (b === 10 ? 1 : 0), 1)
    return { line, byte: sound - start + 1 }
  }
}

function isSound(bytes: Uint8Array): boolean {
  try {
    // a letter that is cut off at the end may still become whole
    new TextDecoder('utf-8', { fatal: true }).decode(bytes, { stream: true })
    return true
  } catch {
    return false
  }
}
