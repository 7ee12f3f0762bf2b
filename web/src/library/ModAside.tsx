import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { Aside, AsidePart } from '../ui/Aside'
import { HowFar, modDetail } from '../ui/HowFar'
import { PathText } from '../ui/PathText'
import { Failed, Loading } from '../ui/States'
import { bytes, count, list, number, when } from '../ui/text'
import { NeedsList } from './NeedsList'
import { useMod } from './queries'

/** About one mod: who it is, what the game gets from it, what was left out and why. */
export function ModAside({ workspace, mod }: { workspace: number; mod: number }) {
  const detail = useMod(workspace, mod, 200)
  return (
    <Aside label="About the mod">
      {detail.isPending && <Loading what="the mod" />}
      {detail.isError && <Failed error={detail.error} retry={() => detail.refetch()} />}
      {detail.data && <About workspace={workspace} mod={detail.data} />}
    </Aside>
  )
}

function About({ workspace, mod: m }: { workspace: number; mod: Schema['ModDetail'] }) {
  return (
    <>
      <h2 className="break-words">{m.name}</h2>
      <p className="mt-0.5 text-ink-2">
        {m.version}
        {m.authors.length > 0 && `${m.version && ' · '}by ${list(m.authors)}`}
      </p>
      <p className="mt-1.5">
        <HowFar reached={m.journey.reached} detail={modDetail(m.journey)} withWords />
      </p>
      {m.summary && <p className="mt-2.5 text-[13.5px] leading-snug">{m.summary}</p>}
      {m.inferred && (
        <p className="mt-2 text-ink-2">It has no card: name and version are taken from its archive.</p>
      )}
      {m.better && (
        <p className="mt-2 rounded-lg bg-ochre-soft px-3 py-2">
          Another choice of its contents would fit better by now. {m.better.because.join(' ')}
        </p>
      )}
      <p className="mt-3 flex gap-2">
        <Link
          to={`/workspaces/${workspace}/library/${m.id}/about`}
          className="inline-flex h-[30px] items-center rounded-[7px] bg-strong px-2.5 text-on-strong hover:opacity-90"
        >
          Open it
        </Link>
        <Link
          to={`/workspaces/${workspace}/layers/${m.id}`}
          className="inline-flex h-[30px] items-center rounded-[7px] border border-line px-2.5 hover:bg-sunk"
        >
          Open in Layers
        </Link>
      </p>
      <NeedsList detail={m} />
      <AsidePart title="Where it came from">
        <p className="break-words text-ink-2">
          {m.archiveName ? (
            <>
              <span className="mono">{m.archiveName}</span>, brought in {when(m.installedAt)}. It begins at{' '}
              {m.contentRoot ? <span className="mono">{m.contentRoot}/</span> : 'the top of the archive'}:{' '}
              {m.rootReason}.
            </>
          ) : (
            `Made here, ${when(m.installedAt)}.`
          )}
        </p>
      </AsidePart>
      {m.plugins.length > 0 && (
        <AsidePart title={count(m.plugins.length, 'plugin')}>
          <ul>
            {m.plugins.map((p) => (
              <li key={p}>
                <Link
                  to={`/workspaces/${workspace}/load-order/${encodeURIComponent(p)}`}
                  className="hover:underline"
                >
                  {p}
                </Link>
              </li>
            ))}
          </ul>
        </AsidePart>
      )}
      <AsidePart title={`What the game gets: ${count(m.fileCount, 'file')}, ${bytes(m.sizeBytes)}`}>
        <ul>
          {m.files.map((f) => (
            <li
              key={`${f.pack ?? ''} ${f.path}`}
              className="flex items-baseline gap-2 border-line border-b border-dotted py-[3px]"
            >
              <PathText path={f.path} most={34} className="min-w-0 flex-1 whitespace-nowrap" />
              {f.pack && (
                <small className="shrink-0 text-ink-3" title={`In ${f.pack}, read in place`}>
                  packed
                </small>
              )}
              <span className="num shrink-0 text-[11.5px] text-ink-2">{bytes(f.sizeBytes)}</span>
            </li>
          ))}
        </ul>
        {m.fileCount > m.files.length && (
          <p className="mt-1 text-ink-2">
            The first {number(m.files.length)} of {number(m.fileCount)}.
          </p>
        )}
      </AsidePart>
      {m.leftOut.length > 0 && (
        <AsidePart title={`Left out: ${number(m.leftOut.length)}`}>
          <ul>
            {m.leftOut.map((l) => (
              <li key={l.entry} className="border-line border-b border-dotted py-[3px]">
                <PathText path={l.entry} most={42} />
                <p className="text-[11.5px] text-ink-2">{l.reason}</p>
              </li>
            ))}
          </ul>
        </AsidePart>
      )}
    </>
  )
}
