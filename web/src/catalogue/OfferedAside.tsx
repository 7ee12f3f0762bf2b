import { lazy, Suspense } from 'react'
import { choiceAddress } from '../choice/wanted'
import { Aside, AsidePart } from '../ui/Aside'
import { ButtonLink } from '../ui/ButtonLink'
import { CopyButton } from '../ui/CopyButton'
import { Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { bytes, list } from '../ui/text'
import { linkOf } from './link'
import { type OfferedMod, type Release, useCatalogues, useOffered } from './queries'
import { changeWords, rangeWords } from './words'

const Markdown = lazy(() => import('../ui/Markdown'))

/** A mod of the catalogue: what it is, and its releases with what each needs. */
export function OfferedAside({ workspace, mod }: { workspace: number; mod: string }) {
  const offered = useOffered(workspace, mod)
  return (
    <Aside label="The mod that is selected">
      {offered.isPending ? (
        <Loading what="the mod" />
      ) : offered.isError ? (
        <Failed error={offered.error} retry={() => offered.refetch()} />
      ) : (
        offered.data.map((o) => <Offered key={o.catalogue} workspace={workspace} mod={o} />)
      )}
    </Aside>
  )
}

function Offered({ workspace, mod: m }: { workspace: number; mod: OfferedMod }) {
  return (
    <section aria-label={`${m.name} in ${m.catalogueTitle}`} className="mb-4">
      <h2 className="break-words">{m.name}</h2>
      <p className="text-[12px] text-ink-2">
        {m.authors.length > 0 && `by ${list(m.authors)}, `}in {m.catalogueTitle}
      </p>
      {m.summary && <p className="mt-1.5 break-words">{m.summary}</p>}
      <div className="mt-1.5 flex flex-wrap gap-1">
        {m.tags.map((t) => (
          <Tag key={t}>{t}</Tag>
        ))}
      </div>
      {/^https?:\/\//i.test(m.page) && (
        <p className="mt-1.5 break-all">
          <a href={m.page} target="_blank" rel="noreferrer" className="text-woad underline">
            {m.page}
          </a>
        </p>
      )}
      <div className="mt-2.5">
        <ButtonLink to={choiceAddress(workspace, { wishes: [{ mod: m.mod }] })}>
          See what it brings with it
        </ButtonLink>
      </div>
      {m.requests && (
        <AsidePart title="What its author asks">
          <p className="break-words text-ink-2">{m.requests}</p>
        </AsidePart>
      )}
      <AsidePart title="Releases">
        <ul className="flex flex-col gap-2.5">
          {m.releases.map((r) => (
            <ReleasePart key={r.sha256} workspace={workspace} mod={m} release={r} />
          ))}
        </ul>
      </AsidePart>
    </section>
  )
}

function ReleasePart({
  workspace,
  mod,
  release: r,
}: {
  workspace: number
  mod: OfferedMod
  release: Release
}) {
  const address = useCatalogues(workspace).data?.find((c) => c.id === mod.catalogue)?.address
  const link = address ? linkOf(address, mod.mod, r.version, r.sha256) : null
  const wish = { mod: mod.mod, release: `${mod.catalogue}:${r.sha256}` }
  return (
    <li className="border-line border-t pt-2">
      <div className="flex flex-wrap items-baseline gap-1.5">
        <b className="num">{r.version}</b>
        {r.variant && <Tag>{r.variant}</Tag>}
        {r.kind === 'OLD' && <Tag>older</Tag>}
        {r.harmless && <Tag>no update of the game breaks it</Tag>}
        <span className="num ml-auto text-[11.5px] text-ink-2">
          {[r.at, bytes(r.sizeBytes)].filter(Boolean).join(', ')}
        </span>
      </div>
      {r.title && <p className="text-ink-2">{r.title}</p>}
      {r.withdrawn && <p className="break-words text-madder">Withdrawn: {r.withdrawn}</p>}
      <Said says="needs" what={r.needs.map(rangeWords)} />
      <Said says="only right with" what={r.bridges.map(rangeWords)} />
      <Said says="does not go with" what={r.clashes.map(rangeWords)} />
      {r.game !== '*' && <p className="text-[12px] text-ink-2">for the game {r.game}</p>}
      {changeWords(r) && <p className="text-[12px] text-ink-2">It {changeWords(r)}.</p>}
      {r.changes && (
        <Suspense fallback={<p className="text-ink-2">{r.changes}</p>}>
          <div className="mt-1 text-[12.5px]">
            <Markdown text={r.changes} />
          </div>
        </Suspense>
      )}
      <div className="mt-1.5 flex items-center gap-2">
        <ButtonLink to={choiceAddress(workspace, { wishes: [wish] })}>{`Choose ${r.version}`}</ButtonLink>
        {link && <CopyButton what={`the link of ${r.version}`} text={link} />}
      </div>
    </li>
  )
}

function Said({ says, what }: { says: string; what: readonly string[] }) {
  if (what.length === 0) return null
  return (
    <p className="break-words text-[12px] text-ink-2">
      {says} {list(what)}
    </p>
  )
}
