import { lazy, Suspense, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { HowFar, modDetail } from '../ui/HowFar'
import { Menu } from '../ui/Menu'
import { Screen, Waiting } from '../ui/Screen'
import { Segments } from '../ui/Segments'
import { Loading } from '../ui/States'
import { count, list } from '../ui/text'
import { AboutPart } from './AboutPart'
import { useMod } from './queries'
import { RemoveDialog } from './RemoveDialog'
import { VersionsPart } from './VersionsPart'
import { useReinstall, useVerify } from './verify'

// what shows texts is large, and nobody needs it before a mod is open
const FilesPart = lazy(() => import('./FilesPart'))
const ReadingPart = lazy(() => import('./ReadingPart'))

type Part = 'about' | 'files' | 'reading' | 'versions'
const PARTS: readonly Part[] = ['about', 'files', 'reading', 'versions']

/** One mod, open: what it is, its files, what there is to read, its versions. */
export function ModScreen() {
  const workspace = useWorkspace()
  const { mod: address, part: named } = useParams()
  const mod = Number(address)
  const go = useNavigate()
  const detail = useMod(workspace, mod, 0)
  const [removing, setRemoving] = useState(false)
  const part = PARTS.find((p) => p === named) ?? 'about'
  const base = `/workspaces/${workspace}/library`
  const m = detail.data
  const reinstall = useReinstall(workspace)
  const verify = useVerify(workspace)
  if (detail.isError || !m) return <Waiting title="Mod" what="the mod" queries={[detail]} />
  return (
    <Screen
      title={m.name}
      name={`${m.name} · Library`}
      says={
        <span className="flex flex-wrap items-center gap-x-3 gap-y-1">
          <span className="num">{m.version}</span>
          {m.authors.length > 0 && <span>by {list(m.authors)}</span>}
          {m.inUse ? (
            <HowFar reached={m.journey.reached} detail={modDetail(m.journey)} withWords />
          ) : (
            <span className="text-ochre">not the version in use</span>
          )}
        </span>
      }
      actions={
        <>
          <Link to={`${base}/${m.id}`} className="text-woad underline">
            Library
          </Link>
          {m.fitted && m.archive && (
            <Button onClick={() => go(`${base}/inbox/${m.archive}?instead=${m.id}`)}>Fit again</Button>
          )}
          <Menu
            label="More about the mod"
            acts={[
              { label: 'Check its files', run: () => verify.mutate([mod]) },
              ...(m.archive
                ? [
                    { label: 'Install it again', run: () => reinstall.mutate([mod]) },
                    {
                      label: 'Choose again what the game gets',
                      run: () => go(`${base}/inbox/${m.archive}?instead=${m.id}`),
                    },
                  ]
                : []),
              null,
              { label: 'Remove it …', run: () => setRemoving(true) },
            ]}
          />
        </>
      }
    >
      <Segments
        label="Parts of the mod"
        value={part}
        onChange={(p) => go(`${base}/${mod}/${p}`, { replace: true })}
        options={[
          { value: 'about', label: 'About' },
          { value: 'files', label: count(m.fileCount, 'file') },
          { value: 'reading', label: 'To read' },
          {
            value: 'versions',
            label: m.versions.length === 1 ? 'One version' : count(m.versions.length, 'version'),
          },
        ]}
      />
      <Suspense fallback={<Loading what="the mod" />}>
        {part === 'about' && <AboutPart workspace={workspace} mod={m} />}
        {part === 'files' && <FilesPart workspace={workspace} mod={m} />}
        {part === 'reading' && <ReadingPart workspace={workspace} mod={m} />}
        {part === 'versions' && <VersionsPart workspace={workspace} mod={m} />}
      </Suspense>
      {removing && <RemoveDialog workspace={workspace} mod={m} onClose={() => setRemoving(false)} />}
    </Screen>
  )
}
