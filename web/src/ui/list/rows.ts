/** A row of a list. */
export interface ListRow {
  id: string
  /** What typing finds, and what a screen reader says. */
  label: string
  /** Stands where it stands, and nothing goes past it; it is never chosen. */
  fixed?: boolean
}

/** No row. */
export const NONE: ReadonlySet<string> = new Set()
