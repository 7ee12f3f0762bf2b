import { lazy, Suspense, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { useWorkspace } from '../frame/workspace'
import { differenceWords } from '../layers/sentence'
import { useMends } from '../mends/queries'
import { SavesNote } from '../mends/SavesNote'
import { useProfiles } from '../profiles/queries'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { HowFar, modDetail } from '../ui/HowFar'
import { Menu } from '../ui/Menu'
import { Screen, Waiting } from '../ui/Screen'
import { Segments } from '../ui/Segments'
import { Failed, Loading } from '../ui/States'
import { bytes, count, list } from '../ui/text'
import { AboutPart } from './AboutPart'
import { useAct, useMod, useRemoval } from './queries'
import { VersionsPart } from './VersionsPart'

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
  const reinstall = useReinstall(workspace, mod)
  const verify = useVerify(workspace, mod)
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
              { label: 'Check its files', run: () => verify.mutate(undefined) },
              ...(m.archive
                ? [
                    { label: 'Install it again', run: () => reinstall.mutate(undefined) },
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
      <RemoveDialog workspace={workspace} mod={m} open={removing} onOpenChange={setRemoving} />
    </Screen>
  )
}

function useReinstall(workspace: number, mod: number) {
  const { say } = useNotices()
  return useAct(
    workspace,
    async () =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/mods/{mod}/reinstall', {
            params: { path: { workspace, mod } },
          }),
        ),
      ),
    () => say('Installed again, to the same bytes.'),
  )
}

function useVerify(workspace: number, mod: number) {
  const { say } = useNotices()
  const reinstall = useReinstall(workspace, mod)
  return useAct(
    workspace,
    () =>
      got(
        api.POST('/api/workspaces/{workspace}/mods/{mod}/verify', { params: { path: { workspace, mod } } }),
      ),
    (v) => {
      if (v.amiss.length === 0) {
        say(`${count(v.checked, 'file')} read: all as ${v.checked === 1 ? 'it was' : 'they were'} installed.`)
        return
      }
      const names = v.amiss.slice(0, 3).map((a) => `${a.path}${a.found ? '' : ' (gone)'}`)
      say(`${count(v.amiss.length, 'file')} of ${v.checked} not as installed: ${list(names)}.`, {
        label: 'Install again',
        run: () => reinstall.mutate(undefined),
      })
    },
  )
}

function RemoveDialog(props: {
  workspace: number
  mod: Schema['ModDetail']
  open: boolean
  onOpenChange: (open: boolean) => void
}) {
  const { workspace, mod: m } = props
  const [archive, setArchive] = useState(false)
  const removal = useRemoval(workspace, m.id, props.open)
  const go = useNavigate()
  const { say } = useNotices()
  const path = { workspace, mod: m.id }
  const giveBack = useAct(workspace, () =>
    got(api.POST('/api/workspaces/{workspace}/bin/mods/{mod}/return', { params: { path } })),
  )
  const profiles = useProfiles(workspace).data?.length ?? 1
  const madeOfIt =
    useMends(workspace).data?.filter((x) => x.ingredients.some((i) => m.plugins.includes(i.plugin))) ?? []
  const remove = useAct(
    workspace,
    async () => {
      // away from it first: nobody asks for a mod that is gone
      props.onOpenChange(false)
      await go(`/workspaces/${workspace}/library`, { flushSync: true })
      return got(
        api.DELETE('/api/workspaces/{workspace}/mods/{mod}', { params: { path, query: { archive } } }),
      )
    },
    () =>
      say(`“${m.name}” lies in the bin.`, { label: 'Bring it back', run: () => giveBack.mutate(undefined) }),
  )
  const r = removal.data
  return (
    <Dialog
      open={props.open}
      onOpenChange={props.onOpenChange}
      title={`Remove ${m.name}`}
      says={`It goes to the bin${profiles > 1 ? `, for all ${profiles} profiles,` : ''} and comes back to its layer until the bin is emptied.`}
    >
      {removal.isPending ? (
        <Loading what="what that would mean" />
      ) : removal.isError || !r ? (
        <Failed error={removal.error} retry={() => removal.refetch()} />
      ) : (
        <div className="flex flex-col gap-2.5">
          <p>{differenceWords(r.game, 'would')}</p>
          {r.neededBy.length > 0 && (
            <p className="text-ochre">
              {list(r.neededBy)} {r.neededBy.length === 1 ? 'needs' : 'need'} it.
            </p>
          )}
          {madeOfIt.length > 0 && (
            <p className="text-ochre">
              {list(madeOfIt.map((x) => x.name))} {madeOfIt.length === 1 ? 'is' : 'are'} made of it, and{' '}
              {madeOfIt.length === 1 ? 'becomes' : 'become'} stale.
            </p>
          )}
          {m.plugins.length > 0 && <SavesNote workspace={workspace} plugins={m.plugins} />}
          {r.archiveBytes > 0 &&
            (r.archiveShared ? (
              <p className="text-ink-2">Its archive stays: other mods are made of it.</p>
            ) : (
              <label className="flex items-baseline gap-2">
                <input type="checkbox" checked={archive} onChange={(e) => setArchive(e.target.checked)} />
                <span>
                  Its archive goes too <span className="num text-ink-2">({bytes(r.archiveBytes)})</span>
                </span>
              </label>
            ))}
          <p className="text-ink-2">
            Emptying the bin then frees{' '}
            {bytes(r.modBytes + (archive && !r.archiveShared ? r.archiveBytes : 0))}.
          </p>
          <Button
            look="warning"
            className="self-start"
            disabled={remove.isPending}
            onClick={() => remove.mutate(undefined)}
          >
            Remove it
          </Button>
        </div>
      )}
    </Dialog>
  )
}
