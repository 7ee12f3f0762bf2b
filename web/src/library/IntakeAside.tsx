import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { choiceAddress, wishOf } from '../choice/wanted'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { ButtonLink } from '../ui/ButtonLink'
import { Problems } from '../ui/Problems'
import { bytes, count, number } from '../ui/text'
import { NeedsList } from './NeedsList'
import type { PartRequest } from './queries'
import { ReplacementPart } from './Replacement'

interface IntakeAsideProps {
  workspace: number
  view: Schema['IntakeView']
  part: PartRequest
  /** Mods of their own that were split off. */
  others: readonly PartRequest[]
  asking: boolean
  installing: boolean
  /** Some question has answers that will not do. */
  amiss: boolean
  onPart: (part: PartRequest) => void
  onDropOther: (root: string) => void
  onInstall: (extra: PartRequest) => void
}

/** What installing it would mean, and the buttons that do it. */
export function IntakeAside(props: IntakeAsideProps) {
  const { view, part } = props
  const lacking = view.needs.filter((n) => n.state !== 'MET')
  const inUse = view.here.find((h) => h.inUse) ?? view.here[0]
  const possible =
    view.state === 'LAID' && !props.amiss && !props.asking && (view.flaws.length === 0 || part.plain === true)
  return (
    <Aside label="About installing it">
      <h2 className="break-words">
        {view.state === 'SEVERAL'
          ? 'Nothing is chosen yet'
          : `${count(view.getsInAll, 'file')}, ${bytes(view.getsBytes)}`}
      </h2>
      <p className="mono mt-0.5 break-all text-ink-3">{view.archiveName}</p>
      {view.summary && <p className="mt-2">{view.summary}</p>}
      {view.inferred && view.state === 'LAID' && (
        <label className="mt-2 flex flex-col gap-1 text-ink-2">
          It has no card; call it
          <input
            defaultValue={view.name}
            onBlur={(e) => props.onPart({ ...part, name: e.target.value.trim() || undefined })}
            className="h-8 rounded-[7px] border border-line-2 bg-card px-2 text-ink"
          />
        </label>
      )}
      {view.warnings.map((w) => (
        <p key={w.thing + w.reason} className="mt-2 text-ochre">
          {w.thing}: {w.reason} {w.remedy}
        </p>
      ))}
      {view.flaws.length > 0 && (
        <div className="mt-3 flex flex-col gap-2">
          <Problems problems={view.flaws} />
          {!part.plain && (
            <Button onClick={() => props.onPart({ ...part, plain: true })}>
              Take it as it is, all the same
            </Button>
          )}
        </div>
      )}
      {view.state === 'LAID' && (
        <AsidePart title="Where it begins">
          <p className="break-words text-ink-2">
            At {view.root ? <span className="mono text-ink">{view.root}/</span> : 'the top of the archive'}:{' '}
            {view.rootReason}.
          </p>
          <p className="mt-1 flex flex-wrap gap-x-3">
            {part.root !== undefined && (
              <button
                type="button"
                className="min-h-6 text-woad underline"
                onClick={() => props.onPart({ ...part, root: undefined })}
              >
                Find it by itself again
              </button>
            )}
            {view.hasQuestions && (
              <button
                type="button"
                className="min-h-6 text-woad underline"
                onClick={() => props.onPart({ ...part, plain: !part.plain })}
              >
                {part.plain ? 'Ask its questions' : 'Skip the questions'}
              </button>
            )}
          </p>
        </AsidePart>
      )}
      {view.state === 'LAID' && <NeedsList detail={view} />}
      {lacking.length > 0 && (
        <p className="mt-1.5">
          <ButtonLink to={choiceAddress(props.workspace, { wishes: lacking.map((n) => wishOf(n.mod)) })}>
            See what fetching them brings
          </ButtonLink>
        </p>
      )}
      {props.others.length > 0 && (
        <AsidePart title="Mods of their own">
          <ul>
            {props.others.map((o) => (
              <li key={o.root} className="flex items-center gap-2">
                <span className="min-w-0 flex-1 truncate">{o.name}</span>
                <Button look="quiet" className="h-6" onClick={() => props.onDropOther(o.root ?? '')}>
                  Not after all
                </Button>
              </li>
            ))}
          </ul>
        </AsidePart>
      )}
      {view.state === 'LAID' && (
        <AsidePart title="Same paths as others">
          {view.collisions.length === 0 ? (
            <p className="text-ink-2">None: nobody else brings any of these files.</p>
          ) : (
            <ul>
              {view.collisions.slice(0, 8).map((c) => (
                <li key={c.mod} className="flex justify-between gap-3">
                  {c.mod === 0 ? (
                    <span>The game itself</span>
                  ) : (
                    <Link
                      className="truncate hover:underline"
                      to={`/workspaces/${props.workspace}/layers/${c.mod}`}
                    >
                      {c.name}
                    </Link>
                  )}
                  <span className="num text-ink-2">{number(c.paths)}</span>
                </li>
              ))}
            </ul>
          )}
          {view.collisions.length > 8 && (
            <p className="text-ink-2">and {count(view.collisions.length - 8, 'other')}</p>
          )}
        </AsidePart>
      )}
      {view.replaces && <ReplacementPart replacement={view.replaces} />}
      <div className={view.state === 'SEVERAL' ? 'hidden' : 'mt-4 flex flex-col gap-2'}>
        {part.instead ? (
          <>
            <Button
              look="strong"
              disabled={!possible || props.installing}
              onClick={() => props.onInstall({})}
            >
              Put it in the place of {view.replaces?.version ?? 'that version'}
            </Button>
            <Button
              disabled={!possible || props.installing}
              onClick={() => props.onInstall({ instead: undefined, beside: part.instead })}
            >
              Keep it beside, unused
            </Button>
            <Button
              look="quiet"
              disabled={!possible || props.installing}
              onClick={() => props.onInstall({ instead: undefined, another: true })}
            >
              It is another mod: a layer of its own
            </Button>
          </>
        ) : (
          <>
            <Button
              look="strong"
              disabled={!possible || props.installing}
              onClick={() => props.onInstall(inUse ? { another: true } : {})}
            >
              {props.others.length > 0
                ? `Install ${props.others.length + 1} mods`
                : inUse
                  ? 'Install as another mod'
                  : 'Install'}
            </Button>
            {inUse && (
              <Button onClick={() => props.onPart({ root: part.root, instead: inUse.mod })}>
                {inUse.version ? `Version ${inUse.version}` : 'Another version'} is here: put it in its place
              </Button>
            )}
          </>
        )}
        {props.amiss && <p className="text-madder">A question still waits for its answer.</p>}
      </div>
    </Aside>
  )
}
