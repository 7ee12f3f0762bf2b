import clsx from 'clsx'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { Button } from '../ui/Button'
import { Failed, Loading } from '../ui/States'
import { bytes, when } from '../ui/text'
import { useArrange, useComparison } from './queries'
import { ReplacementPart } from './Replacement'

/** The versions and fittings of a mod that are here; one is in use. */
export function VersionsPart({ workspace, mod: m }: { workspace: number; mod: Schema['ModDetail'] }) {
  const inUse = m.versions.find((v) => v.inUse)
  const [chosen, setChosen] = useState<number | null>(m.inUse ? null : m.id)
  const other = m.versions.find((v) => v.mod === chosen && !v.inUse)
  return (
    <div className="mt-2 grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-3 max-lg:grid-cols-1">
      <ul aria-label="Versions" className="card min-h-0 overflow-y-auto">
        {m.versions.map((v) => (
          <li
            key={v.mod}
            className={clsx(
              'flex items-center gap-3 border-line border-b px-3.5 py-2',
              v.mod === chosen && 'bg-woad-soft',
            )}
          >
            <span className="min-w-0 flex-1">
              <Link
                to={`/workspaces/${workspace}/library/${v.mod}/versions`}
                className="num font-medium hover:underline"
              >
                {v.version || 'no version told'}
              </Link>{' '}
              {v.inUse && <b className="ml-1 font-semibold text-moss">in use</b>}
              <small className="mono block truncate text-ink-3" title={v.archiveName}>
                {v.archiveName || 'made here'}
              </small>
            </span>
            <small className="whitespace-nowrap text-ink-2">
              {v.fitted ? 'fitted ' : ''}
              {when(v.installedAt)}
            </small>
            <span className="num w-16 text-right text-ink-2">{bytes(v.sizeBytes)}</span>
            {!v.inUse && inUse && <Button onClick={() => setChosen(v.mod)}>Compare</Button>}
          </li>
        ))}
        <li className="px-3.5 py-2.5 text-ink-2">
          {m.versions.length === 1
            ? 'No other version is here. Bring its archive in: it can take this one’s place, or lie beside it.'
            : 'Only the version in use has a layer. The others lie here and do nothing.'}
        </li>
      </ul>
      {other && inUse && (
        <Compared workspace={workspace} inUse={inUse.mod} other={other} onUsed={() => setChosen(null)} />
      )}
    </div>
  )
}

function Compared(props: {
  workspace: number
  inUse: number
  other: Schema['VersionView']
  onUsed: () => void
}) {
  const { workspace, inUse, other } = props
  const compared = useComparison(workspace, inUse, other.mod)
  const go = useNavigate()
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const use = useArrange(
    workspace,
    async (_: undefined, header) => {
      const { response } = await api.POST('/api/workspaces/{workspace}/mods/{mod}/use', {
        params: { path: { workspace, mod: other.mod }, query: { instead: inUse }, header },
      })
      return got(
        Promise.resolve({ data: Number(response.headers.get('ETag')?.replaceAll('"', '')), response }),
      )
    },
    (revision) => revision,
    () => {
      props.onUsed()
      go(`/workspaces/${workspace}/library/${other.mod}/versions`, { replace: true })
      say(
        `${other.version ? `Version ${other.version}` : 'The other version'} is in use now, in the same place.`,
        { label: 'Undo', run: undo },
      )
    },
  )
  return (
    <section
      aria-label={`Version ${other.version || 'not told'} compared`}
      className="card min-h-0 overflow-y-auto px-4 pb-4"
    >
      {compared.isPending ? (
        <Loading what="the difference" />
      ) : compared.isError ? (
        <Failed error={compared.error} retry={() => compared.refetch()} />
      ) : (
        <>
          <ReplacementPart replacement={compared.data} />
          <Button
            look="strong"
            className="mt-3"
            disabled={use.isPending}
            onClick={() => use.mutate(undefined)}
          >
            Use {other.version || 'it'} instead
          </Button>
        </>
      )}
    </section>
  )
}
