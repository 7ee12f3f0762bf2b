import { Telescope } from 'lucide-react'
import { type FormEvent, useState } from 'react'
import { api, got } from '../api/client'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { useWorkspace } from '../frame/workspace'
import { useAct } from '../library/queries'
import { Button } from '../ui/Button'
import { ButtonLink } from '../ui/ButtonLink'
import { Problems } from '../ui/Problems'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { bytes, count, number, when } from '../ui/text'
import { type Catalogue, useCatalogues, useSpeedLimit } from './queries'
import { lookWords } from './words'

/** The catalogues that the workspace knows: when each was looked at, what came of it, and whether it can be believed. */
export function PlacesView() {
  const workspace = useWorkspace()
  const catalogues = useCatalogues(workspace)
  const all = catalogues.data ?? []
  const speed = useSpeedLimit(workspace)
  return (
    <Screen
      title="Catalogues"
      says="Where mods are offered. What each has said is kept here, and found without a network too."
      actions={
        <>
          <Button title={LINKS} onClick={() => openLinksHere(workspace)}>
            Open links to mods here
          </Button>
          <ButtonLink to={`/workspaces/${workspace}/catalogue`}>Find mods</ButtonLink>
        </>
      }
    >
      <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-2">
        <AddForm workspace={workspace} />
        <SpeedForm key={speed.data?.bytesASecond} workspace={workspace} limit={speed.data?.bytesASecond} />
      </div>
      {catalogues.isPending ? (
        <div className="card flex-1">
          <Loading what="the catalogues" />
        </div>
      ) : catalogues.isError ? (
        <Failed error={catalogues.error} retry={() => catalogues.refetch()} />
      ) : all.length === 0 ? (
        <div className="card flex-1">
          <Empty icon={Telescope} title="No catalogue is known yet">
            Name an address, such as https://example.org/mods, or a folder of this machine.
          </Empty>
        </div>
      ) : (
        <ul className="card min-h-0 flex-1 overflow-y-auto" aria-label="Catalogues">
          {all.map((c, i) => (
            <Place key={c.id} workspace={workspace} all={all} at={i} />
          ))}
        </ul>
      )}
    </Screen>
  )
}

const LINKS = 'Asks your browser to open web+ironing: links in this workspace from now on.'

/** Registers the page for links to mods (HTML Standard, 8.9.1.2); the browser asks its user. */
function openLinksHere(workspace: number) {
  const address = `${window.location.origin}/workspaces/${workspace}/catalogue/link?to=%s`
  navigator.registerProtocolHandler('web+ironing', address)
}

function AddForm({ workspace }: { workspace: number }) {
  const [address, setAddress] = useState('')
  const { say } = useNotices()
  const add = useAct(
    workspace,
    () =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/catalogues', {
            params: { path: { workspace } },
            body: { address: address.trim() },
          }),
        ),
      ),
    () => {
      setAddress('')
      say('The catalogue was added and read.')
    },
  )
  const submit = (e: FormEvent) => {
    e.preventDefault()
    if (address.trim()) add.mutate(undefined)
  }
  return (
    <form onSubmit={submit} className="flex items-center gap-2">
      <input
        value={address}
        onChange={(e) => setAddress(e.target.value)}
        aria-label="Address or folder of a catalogue"
        placeholder="https://… or a folder"
        className="h-[30px] w-[380px] max-w-full rounded-[7px] border border-line-2 bg-card px-2.5"
      />
      <Button type="submit" look="strong" disabled={!address.trim() || add.isPending}>
        Add and read it
      </Button>
    </form>
  )
}

/** How fast downloads may be, all together. */
function SpeedForm({ workspace, limit }: { workspace: number; limit: number | undefined }) {
  const [typed, setTyped] = useState(limit === undefined ? '' : String(Math.round(limit / 1024)))
  const { say } = useNotices()
  const set = useAct(
    workspace,
    () =>
      got(
        api.PUT('/api/workspaces/{workspace}/downloads/limit', {
          params: { path: { workspace } },
          body: typed.trim() === '' ? {} : { bytesASecond: Math.round(Number(typed) * 1024) },
        }),
      ),
    (r) =>
      say(
        r.bytesASecond === undefined
          ? 'Downloads take what comes.'
          : `Downloads take at most ${bytes(r.bytesASecond)} a second.`,
      ),
  )
  const right = /^\d{0,9}$/.test(typed.trim())
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault()
        if (right) set.mutate(undefined)
      }}
    >
      <label className="flex items-center gap-2">
        Fetch at most
        <input
          value={typed}
          inputMode="numeric"
          placeholder="any"
          onChange={(e) => setTyped(e.target.value)}
          className="num h-[30px] w-[76px] rounded-[7px] border border-line-2 bg-card px-2 text-right"
        />
        KiB a second
      </label>
      <Button type="submit" disabled={!right || set.isPending}>
        Keep to it
      </Button>
    </form>
  )
}

function Place({ workspace, all, at }: { workspace: number; all: readonly Catalogue[]; at: number }) {
  const c = all[at] as Catalogue
  const path = { workspace, catalogue: c.id }
  const { say } = useNotices()
  const look = useAct(workspace, () =>
    finished(got(api.POST('/api/workspaces/{workspace}/catalogues/{catalogue}/look', { params: { path } }))),
  )
  const trust = useAct(workspace, (fingerprint: string) =>
    finished(
      got(
        api.POST('/api/workspaces/{workspace}/catalogues/{catalogue}/trust', {
          params: { path },
          body: { fingerprint },
        }),
      ),
    ),
  )
  const daily = useAct(workspace, (on: boolean) =>
    got(
      api.PUT('/api/workspaces/{workspace}/catalogues/{catalogue}/daily', {
        params: { path },
        body: { daily: on },
      }),
    ),
  )
  const sooner = useAct(workspace, () => {
    const order = all.map((x) => x.id)
    order.splice(at - 1, 2, c.id, (all[at - 1] as Catalogue).id)
    return got(
      api.PUT('/api/workspaces/{workspace}/catalogues/order', {
        params: { path: { workspace } },
        body: { order },
      }),
    )
  })
  const again = useAct(workspace, () =>
    finished(
      got(
        api.POST('/api/workspaces/{workspace}/catalogues', {
          params: { path: { workspace } },
          body: { address: c.address },
        }),
      ),
    ),
  )
  const remove = useAct(
    workspace,
    () => got(api.DELETE('/api/workspaces/{workspace}/catalogues/{catalogue}', { params: { path } })),
    () =>
      say(`${c.title || c.address} is forgotten; what came from it stays.`, {
        label: 'Add it again',
        run: () => again.mutate(undefined),
      }),
  )
  const news = c.look?.news
  return (
    <li className="border-line border-b px-4 py-3 last:border-b-0">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="min-w-0 truncate">{c.title || 'Not read yet'}</h2>
        <span className="num text-ink-2">
          {number(c.mods)} mods{c.findings > 0 && `, ${count(c.findings, 'finding')}`}
        </span>
        <span className="ml-auto flex items-center gap-2">
          <label className="flex items-center gap-1.5 text-[12px]">
            <input type="checkbox" checked={c.daily} onChange={(e) => daily.mutate(e.target.checked)} />
            look each day
          </label>
          {at > 0 && (
            <Button onClick={() => sooner.mutate(undefined)} disabled={sooner.isPending}>
              Ask it sooner
            </Button>
          )}
          <Button onClick={() => look.mutate(undefined)} disabled={look.isPending}>
            {look.isPending ? 'Looking…' : 'Look now'}
          </Button>
          <Button look="quiet" onClick={() => remove.mutate(undefined)}>
            Forget it
          </Button>
        </span>
      </div>
      <p className="mono break-all text-[12px] text-ink-2">{c.address}</p>
      <p className="mt-1">
        {c.lookedAt ? `Looked at ${when(c.lookedAt)}: ${lookWords(c)}.` : 'Not looked at yet.'}{' '}
        {c.isExpired && (
          <span className="text-ochre">Its keeper says that it may be out of date by now.</span>
        )}
      </p>
      <p className="break-all text-[12px] text-ink-2">
        {c.signedBy
          ? `Signed, with the key ${c.signedBy.slice(0, 16)}…, state ${c.sequence}.`
          : c.sequence !== undefined
            ? `Not signed, state ${c.sequence}.`
            : ''}
      </p>
      {news && news.releases.length > 0 && (
        <p className="mt-1 text-[12.5px]">
          {news.releases
            .slice(0, 12)
            .map((r) => `${r.name} ${r.version}`)
            .join(', ')}
          {news.newReleases > 12 && ` and ${number(news.newReleases - 12)} more`}
        </p>
      )}
      {c.look && c.look.problems.length > 0 && (
        <div className="mt-2">
          <Problems problems={c.look.problems} />
        </div>
      )}
      {c.otherKey && (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <span className="mono break-all text-[12px]">{c.otherKey}</span>
          <Button
            look="warning"
            onClick={() => trust.mutate(c.otherKey as string)}
            disabled={trust.isPending}
          >
            Trust this key from now on
          </Button>
        </div>
      )}
      {c.mistakes.length > 0 && (
        <details className="mt-1.5 text-[12px]">
          <summary>{number(c.mistakes.length)} lines were left out, the others are used</summary>
          <ul className="mono mt-1 break-all">
            {c.mistakes.map((m) => (
              <li key={`${m.part} ${m.line} ${m.reason}`}>
                {m.part.slice(0, 8)}, line {m.line}: {m.reason}
              </li>
            ))}
          </ul>
        </details>
      )}
    </li>
  )
}
