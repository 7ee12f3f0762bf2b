/** A link that asks for one release, as `web+ironing:get?…` says. */
export interface Link {
  /** The address of catalogue.json. */
  catalogue: string
  mod: string
  version: string
  /** The SHA-256 of its archive. */
  file: string
}

const SCHEME = 'web+ironing:'

/** Whether a text is meant as such a link, right or wrong. */
export function isLink(text: string): boolean {
  return text.trim().toLowerCase().startsWith(SCHEME)
}

/** Reads a link; null where it is none. */
export function readLink(text: string): Link | null {
  if (!isLink(text)) return null
  const [act, query] = text
    .trim()
    .slice(SCHEME.length)
    .split(/\?(.*)/s)
  if (act !== 'get') return null
  const said = new URLSearchParams(query)
  const link = {
    catalogue: catalogueAddress(said.get('catalogue') ?? ''),
    mod: said.get('mod') ?? '',
    version: said.get('version') ?? '',
    file: (said.get('file') ?? '').toLowerCase(),
  }
  const whole =
    link.catalogue !== '' && /^[a-z0-9-]{1,64}$/.test(link.mod) && /^[0-9a-f]{64}$/.test(link.file)
  return whole ? link : null
}

/** An address as the server keeps that of a catalogue; empty where it is none. */
export function catalogueAddress(text: string): string {
  try {
    const url = new URL(text.trim())
    if (!/^https?:$/.test(url.protocol) || url.username || url.password) return ''
    const path = url.pathname.endsWith('/catalogue.json')
      ? url.pathname
      : `${url.pathname.replace(/\/+$/, '')}/catalogue.json`
    return `${url.protocol}//${url.host}${path}`
  } catch {
    return ''
  }
}

/** The link of a release, to be given to others; null where its catalogue is a folder of this machine. */
export function linkOf(address: string, mod: string, version: string, file: string): string | null {
  if (catalogueAddress(address) === '') return null
  return `${SCHEME}get?${new URLSearchParams({ catalogue: address, mod, version, file })}`
}
