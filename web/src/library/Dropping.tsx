import { type DragEvent, type ReactNode, useState } from 'react'
import { Refused } from '../api/client'
import { useNotices } from '../frame/Notices'

const FOLDER = {
  code: 'folder-dropped',
  thing: 'A folder',
  reason: 'A browser hands over files only.',
  remedy: 'Bring it in by “From a folder”, where you name it as a mod that is unpacked.',
}

/** A screen that takes files which are dropped on it. */
export function Dropping({ onDrop, children }: { onDrop: (files: File[]) => void; children: ReactNode }) {
  const [over, setOver] = useState(false)
  const { fail } = useNotices()
  const isFiles = (e: DragEvent) => e.dataTransfer.types.includes('Files')
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the button beside does the same by keyboard
    <div
      className="relative flex min-h-0 min-w-0 flex-1"
      onDragOver={(e) => {
        if (!isFiles(e)) return
        e.preventDefault()
        setOver(true)
      }}
      onDragLeave={(e) => {
        if (!e.currentTarget.contains(e.relatedTarget as Node | null)) setOver(false)
      }}
      onDrop={(e) => {
        if (!isFiles(e)) return
        e.preventDefault()
        setOver(false)
        const items = [...e.dataTransfer.items]
        const isFolder = (i: number) => items[i]?.webkitGetAsEntry?.()?.isDirectory === true
        const files = [...e.dataTransfer.files].filter((_, i) => !isFolder(i))
        if (items.some((_, i) => isFolder(i))) fail(new Refused(0, [FOLDER]))
        if (files.length > 0) onDrop(files)
      }}
    >
      {children}
      {over && (
        <div className="pointer-events-none absolute inset-2 z-30 grid place-items-center rounded-xl border-2 border-woad border-dashed bg-woad-soft/90">
          <p className="font-semibold text-[15px] text-woad">Let go to bring them in</p>
        </div>
      )}
    </div>
  )
}
