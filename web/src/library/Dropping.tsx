import { type DragEvent, type ReactNode, useState } from 'react'
import { useNavigate } from 'react-router'
import { Refused } from '../api/client'
import { useNotices } from '../frame/Notices'
import { bringIn } from './uploads'

const FOLDER = {
  code: 'folder-dropped',
  thing: 'A folder',
  reason: 'A browser hands over files only.',
  remedy: 'Bring it in by “From a folder”, where you name it as a mod that is unpacked.',
}

/** Brings archives in, and goes to the inbox, where they are seen to come. */
export function useBringIn(workspace: number): (files: File[]) => void {
  const go = useNavigate()
  return (files) => {
    if (files.length === 0) return
    bringIn(workspace, files)
    go(`/workspaces/${workspace}/library/inbox`)
  }
}

/** Takes archives that are dropped on any screen of a workspace, be it still on its way. */
export function Dropping({ workspace, children }: { workspace: number; children: ReactNode }) {
  const onDrop = useBringIn(workspace)
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
        onDrop(files)
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
