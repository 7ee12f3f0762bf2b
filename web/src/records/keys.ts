/**
 * Keys of records. Where a plugin owns them they are its file name and a number, `Skerry.plug/420`; where names tell
 * records apart they are the type and the names, each behind an equals sign, `alloy/=80=20`.
 */

/** The address of a record's board. */
export function recordPath(workspace: number, key: string): string {
  const { owner, id } = parts(key)
  return `/workspaces/${workspace}/records/${encodeURIComponent(owner)}/${encodeURIComponent(id)}`
}

/** The two parts of a key that stand in an address of the server. */
export function parts(key: string): { owner: string; id: string } {
  const slash = key.lastIndexOf('/')
  return { owner: key.slice(0, slash), id: key.slice(slash + 1) }
}

/** A key as people read it: of a name only what stands in the plugin's files. */
export function spoken(key: string): string {
  const { id } = parts(key)
  if (!id.startsWith('=')) return key
  return id
    .slice(1)
    .split('=')
    .map((name) =>
      name.replace(/%([0-9A-F]{2})/g, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16))),
    )
    .join(' / ')
}
