import { api, got, type Schema } from '../api/client'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { count, list } from '../ui/text'
import { useAct } from './queries'

/** Makes mods anew from their archives. */
export function useReinstall(workspace: number) {
  const { say } = useNotices()
  return useAct(
    workspace,
    async (mods: readonly number[]) => {
      for (const mod of mods) {
        await finished(
          got(
            api.POST('/api/workspaces/{workspace}/mods/{mod}/reinstall', {
              params: { path: { workspace, mod } },
            }),
          ),
        )
      }
    },
    (_, mods) =>
      say(
        mods.length === 1
          ? 'Installed again, to the same bytes.'
          : `${count(mods.length, 'mod')} installed again, to the same bytes.`,
      ),
  )
}

/** Whether a mod is as it was installed, or what is amiss. */
interface Checked {
  mod: number
  verified: Schema['Verified']
}

/** Reads every file of some mods, and says whether they are as they were installed. */
export function useVerify(workspace: number) {
  const { say } = useNotices()
  const reinstall = useReinstall(workspace)
  return useAct(
    workspace,
    async (mods: readonly number[]) => {
      const checked: Checked[] = []
      for (const mod of mods) {
        const params = { path: { workspace, mod } }
        checked.push({
          mod,
          verified: await got(api.POST('/api/workspaces/{workspace}/mods/{mod}/verify', { params })),
        })
      }
      return checked
    },
    (checked) => {
      const broken = checked.filter((c) => c.verified.amiss.length > 0).map((c) => c.mod)
      say(
        checkedWords(checked.map((c) => c.verified)),
        broken.length > 0 ? { label: 'Install again', run: () => reinstall.mutate(broken) } : undefined,
      )
    },
  )
}

/** What reading the files of some mods has shown. */
export function checkedWords(checked: readonly Schema['Verified'][]): string {
  const files = checked.reduce((n, v) => n + v.checked, 0)
  const amiss = checked.flatMap((v) => v.amiss)
  if (amiss.length === 0)
    return `${count(files, 'file')} read: all as ${files === 1 ? 'it was' : 'they were'} installed.`
  const names = amiss.slice(0, 3).map((a) => `${a.path}${a.found ? '' : ' (gone)'}`)
  const rest = amiss.length - names.length
  if (rest > 0) names.push(`${rest} more`)
  return `${count(amiss.length, 'file')} of ${files} not as installed: ${list(names)}.`
}
