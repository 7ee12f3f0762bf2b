import { Link2Off } from 'lucide-react'
import { Navigate } from 'react-router'
import { api, got } from '../api/client'
import { choiceAddress } from '../choice/wanted'
import { useAddress } from '../frame/address'
import { finished } from '../frame/jobs'
import { useWorkspace } from '../frame/workspace'
import { useAct } from '../library/queries'
import { Button } from '../ui/Button'
import { ButtonLink } from '../ui/ButtonLink'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { type Link, readLink } from './link'
import { useCatalogues, useOffered } from './queries'

/** Where a link that asks for a release arrives: it leads to what that brings with it, and fetches nothing by itself. */
export function LinkView() {
  const workspace = useWorkspace()
  const [query] = useAddress()
  const link = readLink(query.get('to') ?? '')
  return (
    <Screen
      title="A link to a mod"
      says={link?.mod}
      actions={<ButtonLink to={`/workspaces/${workspace}/catalogue`}>Find mods</ButtonLink>}
    >
      <div className="card flex-1">
        {link ? (
          <OfCatalogue workspace={workspace} link={link} />
        ) : (
          <Empty icon={Link2Off} title="This link asks for nothing that can be got">
            A link names a catalogue, a mod, a version and the SHA-256 of its archive. Copy it whole.
          </Empty>
        )}
      </div>
    </Screen>
  )
}

function OfCatalogue({ workspace, link }: { workspace: number; link: Link }) {
  const catalogues = useCatalogues(workspace)
  const add = useAct(workspace, () =>
    finished(
      got(
        api.POST('/api/workspaces/{workspace}/catalogues', {
          params: { path: { workspace } },
          body: { address: link.catalogue },
        }),
      ),
    ),
  )
  if (catalogues.isPending) return <Loading what="the catalogues" />
  if (catalogues.isError) return <Failed error={catalogues.error} retry={() => catalogues.refetch()} />
  const known = catalogues.data.find((c) => c.address === link.catalogue)
  if (known && known.sequence !== undefined)
    return <OfMod workspace={workspace} link={link} catalogue={known.id} />
  if (known && !known.look) return <Loading what="the catalogue" />
  if (known)
    return (
      <Empty icon={Link2Off} title="Its catalogue could not be read">
        <ButtonLink to={`/workspaces/${workspace}/catalogue/places`}>See why</ButtonLink>
      </Empty>
    )
  return (
    <Empty icon={Link2Off} title="Its catalogue is not known here">
      <span className="mono block break-all">{link.catalogue}</span>
      <span className="my-2 block">
        Whoever keeps it says what its mods are. Add it only if you trust who gave you the link.
      </span>
      <Button look="strong" disabled={add.isPending} onClick={() => add.mutate(undefined)}>
        {add.isPending ? 'Reading it…' : 'Add the catalogue and go on'}
      </Button>
    </Empty>
  )
}

function OfMod({ workspace, link, catalogue }: { workspace: number; link: Link; catalogue: number }) {
  const offered = useOffered(workspace, link.mod)
  const look = useAct(workspace, () =>
    finished(
      got(
        api.POST('/api/workspaces/{workspace}/catalogues/{catalogue}/look', {
          params: { path: { workspace, catalogue } },
        }),
      ),
    ),
  )
  if (offered.isPending) return <Loading what="the mod" />
  const release = offered.data
    ?.find((o) => o.catalogue === catalogue)
    ?.releases.find((r) => r.sha256 === link.file)
  if (release && (link.version === '' || release.version === link.version))
    return (
      <Navigate
        to={choiceAddress(workspace, {
          wishes: [{ mod: link.mod, release: `${catalogue}:${link.file}` }],
        })}
        replace
      />
    )
  return (
    <Empty icon={Link2Off} title="The catalogue does not offer this release">
      <span className="mb-2 block break-words">
        {link.mod} {link.version}: as it was last looked at, no release of it has this archive.
      </span>
      <Button disabled={look.isPending} onClick={() => look.mutate(undefined)}>
        {look.isPending ? 'Looking…' : 'Look at the catalogue now'}
      </Button>
    </Empty>
  )
}
