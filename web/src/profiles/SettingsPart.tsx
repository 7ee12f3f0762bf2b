import { useQuery } from '@tanstack/react-query'
import { api, got } from '../api/client'
import { of } from '../frame/workspace'
import { useAct } from '../library/queries'
import { Button } from '../ui/Button'
import { PathText } from '../ui/PathText'
import { bytes, when } from '../ui/text'

/** The settings files of which a profile has a copy of its own; nothing for a game that gives it none. */
export function SettingsPart({
  workspace,
  profile,
  name,
}: {
  workspace: number
  profile: number
  name: string
}) {
  const params = { path: { workspace, profile } }
  const settings = useQuery({
    queryKey: of(workspace, 'profile-settings', profile),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/profiles/{profile}/settings', { params, signal })),
  }).data
  const giveUp = useAct(workspace, (path: string) =>
    got(
      api.DELETE('/api/workspaces/{workspace}/profiles/{profile}/settings', {
        params: { ...params, query: { path } },
      }),
    ),
  )
  if (!settings || settings.patterns.length === 0) return null
  return (
    <section aria-label="Settings files" className="mt-4 border-line border-t pt-3">
      <h2>Settings files of {name}</h2>
      <p className="mt-1 text-ink-2 leading-snug">
        Each profile has its own <PathText path={settings.patterns.join(', ')} most={60} />. What the game or
        you write there is kept for the profile that is deployed, and laid out again with it; the original
        comes back when all is taken out.
      </p>
      {settings.files.length === 0 ? (
        <p className="mt-1.5 text-ink-2">It still starts with what the mods or the game bring.</p>
      ) : (
        <ul className="mt-1.5">
          {settings.files.map((f) => (
            <li key={f.path} className="flex items-center gap-3 py-0.5">
              <PathText path={f.path} most={46} className="min-w-0 flex-1 truncate" />
              <span className="num text-ink-2">{bytes(f.sizeBytes)}</span>
              <span className="text-ink-3">kept {when(f.at)}</span>
              <Button look="quiet" className="h-6" onClick={() => giveUp.mutate(f.path)}>
                Give it up
              </Button>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
