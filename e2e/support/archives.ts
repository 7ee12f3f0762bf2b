import { crc32 } from 'node:zlib'
import type { GivenFile } from './test'

/** A zip whose entries are stored as they are (APPNOTE.TXT 4.3), made without a library. */
export function zipOf(files: Readonly<Record<string, string>>): Buffer {
  const parts: Buffer[] = []
  const index: Buffer[] = []
  let offset = 0
  for (const [name, text] of Object.entries(files)) {
    const path = Buffer.from(name)
    const content = Buffer.from(text)
    const head = Buffer.alloc(30)
    head.writeUInt32LE(0x04034b50, 0)
    head.writeUInt16LE(20, 4)
    head.writeUInt16LE(0x0800, 6)
    head.writeUInt32LE(crc32(content), 14)
    head.writeUInt32LE(content.length, 18)
    head.writeUInt32LE(content.length, 22)
    head.writeUInt16LE(path.length, 26)
    parts.push(head, path, content)
    const entry = Buffer.alloc(46)
    entry.writeUInt32LE(0x02014b50, 0)
    entry.writeUInt16LE(20, 4)
    head.copy(entry, 6, 4, 30)
    entry.writeUInt32LE(offset, 42)
    index.push(entry, path)
    offset += head.length + path.length + content.length
  }
  const end = Buffer.alloc(22)
  const count = Object.keys(files).length
  end.writeUInt32LE(0x06054b50, 0)
  end.writeUInt16LE(count, 8)
  end.writeUInt16LE(count, 10)
  end.writeUInt32LE(Buffer.concat(index).length, 12)
  end.writeUInt32LE(offset, 16)
  return Buffer.concat([...parts, ...index, end])
}

export function zipFile(name: string, files: Readonly<Record<string, string>>): GivenFile {
  return { name, bytes: zipOf(files) }
}
