import type { QueryClient } from '@tanstack/react-query'
import { type ComponentType, lazy, Suspense, useState } from 'react'
import { createBrowserRouter, Navigate, type RouteObject, useLocation } from 'react-router'
import { Broken } from './frame/Broken'
import { wentTo } from './frame/focus'
import { NothingHere } from './frame/NothingHere'
import { Shell } from './frame/Shell'
import { layersQuery } from './layers/queries'
import { Waiting } from './ui/Screen'

/** Gets the code of a screen. */
type Load = () => Promise<ComponentType>

/**
 * By path below a workspace: the code of each screen is fetched when it is shown for the first time. What may be
 * selected in a screen is an optional part of its path: another selection is not another screen.
 */
const SCREENS: Record<string, Load> = {
  '': async () => (await import('./overview/OverviewView')).OverviewView,
  definition: async () => (await import('./game/DefinitionView')).DefinitionView,
  'library/inbox': async () => (await import('./library/InboxView')).InboxView,
  'library/inbox/:archive': async () => (await import('./library/IntakeView')).IntakeView,
  'library/storage': async () => (await import('./library/StorageView')).StorageView,
  'library/:mod?': async () => (await import('./library/LibraryView')).LibraryView,
  'library/:mod/:part': async () => (await import('./library/ModScreen')).ModScreen,
  'catalogue/places': async () => (await import('./catalogue/PlacesView')).PlacesView,
  'catalogue/link': async () => (await import('./catalogue/LinkView')).LinkView,
  'catalogue/choice': async () => (await import('./choice/ChoiceView')).ChoiceView,
  'catalogue/updates/:mod?': async () => (await import('./updates/UpdatesView')).UpdatesView,
  'catalogue/findings': async () => (await import('./findings/FindingsView')).FindingsView,
  'catalogue/:mod?': async () => (await import('./catalogue/CatalogueView')).CatalogueView,
  'layers/suggestion': async () => (await import('./layer-rules/SuggestionView')).SuggestionView,
  'layers/rules': async () => (await import('./layer-rules/RulesView')).RulesView,
  'layers/lists': async () => (await import('./lists/ListsView')).LayersListsView,
  'layers/lists/:list': async () => (await import('./lists/ListView')).LayersListView,
  'layers/:mod?': async () => (await import('./layers/LayersView')).LayersView,
  overlaps: async () => (await import('./overlaps/OverlapsView')).OverlapsView,
  'overlaps/path': async () => (await import('./overlaps/PathScreen')).PathScreen,
  profiles: async () => (await import('./profiles/ProfilesView')).ProfilesView,
  timeline: async () => (await import('./timeline/TimelineView')).TimelineView,
  'load-order/proposal': async () => (await import('./load-order/ProposalView')).ProposalView,
  'load-order/lists': async () => (await import('./lists/ListsView')).OrderListsView,
  'load-order/lists/:list': async () => (await import('./lists/ListView')).OrderListView,
  'load-order/rules': async () => (await import('./load-order/LoadRulesView')).LoadRulesView,
  'load-order/:plugin?': async () => (await import('./load-order/LoadOrderView')).LoadOrderView,
  'records/:owner?/:id?': async () => (await import('./records/RecordsView')).RecordsView,
  mends: async () => (await import('./mends/MendsView')).MendsView,
  'mends/combined-files': async () => (await import('./combined-files/FilesView')).FilesView,
  'mends/merge': async () => (await import('./mends/MergeView')).MergeView,
  deploy: async () => (await import('./deploy/DeployView')).DeployView,
  'deploy/drift': async () => (await import('./drift/DriftView')).DriftView,
  'deploy/game-version': async () => (await import('./game-version/GameVersionView')).GameVersionView,
  'tools/:tool?': async () => (await import('./tools/ToolsView')).ToolsView,
  'guide/:part?': async () => (await import('./guide/GuideView')).GuideView,
  trouble: async () => (await import('./trouble/TroubleView')).TroubleView,
  'trouble/:search': async () => (await import('./trouble/SearchScreen')).SearchScreen,
  'test-run/signs': async () => (await import('./test-run/SignsView')).SignsView,
  'test-run/:run?': async () => (await import('./test-run/TestRunView')).TestRunView,
}

/** Screens whose code is here. */
const here = new Map<string, ComponentType>()

async function fetched(path: string): Promise<ComponentType> {
  const load = SCREENS[path] as Load
  const screen = await load()
  here.set(path, screen)
  return screen
}

const COMING = Object.fromEntries(
  Object.keys(SCREENS).map((path) => [path, lazy(async () => ({ default: await fetched(path) }))]),
)

const Workspaces = lazy(async () => ({ default: (await import('./game/WorkspacesView')).WorkspacesView }))

/**
 * The screen of a path. The way to it never waits for its code: what was shown before goes at once, and would
 * otherwise ask for what may be gone.
 */
function ScreenAt({ path }: { path: string }) {
  const [Shown] = useState(() => here.get(path) ?? (COMING[path] as ComponentType))
  return (
    <Suspense fallback={<Waiting title="" what="the screen" queries={[]} />}>
      <Shown />
    </Suspense>
  )
}

/** Leads an address that was given up to the one that took its place; what was selected stays. */
function Moved({ to }: { to: string }) {
  const { search, hash } = useLocation()
  return <Navigate to={{ pathname: to, search, hash }} replace />
}

/**
 * Every screen has an address of its own, and so has what is selected in it.
 *
 * @param queries where what a screen shows is asked for while the screen itself is still on its way
 */
export function createRouter(queries: QueryClient) {
  const screens = Object.keys(SCREENS).map(
    (path): RouteObject => ({
      ...(path === '' ? { index: true as const } : { path }),
      element: <ScreenAt key={path} path={path} />,
      errorElement: <Broken />,
    }),
  )
  const router = createBrowserRouter([
    { path: '/', element: <Navigate to="/workspaces" replace /> },
    {
      path: '/workspaces',
      element: (
        <Suspense>
          <Workspaces />
        </Suspense>
      ),
      errorElement: <Broken />,
    },
    {
      path: '/workspaces/:workspace',
      element: <Shell />,
      children: [
        ...screens,
        // addresses of before, in bookmarks and in what others have written
        { path: 'mends/files', element: <Moved to="../mends/combined-files" /> },
        { path: 'deploy/folder', element: <Moved to="../deploy/drift" /> },
        { path: '*', element: <NothingHere /> },
      ],
    },
    { path: '*', element: <Navigate to="/workspaces" replace /> },
  ])
  // what Layers show is large: it is asked for beside the code of the screen
  const early = /^\/workspaces\/(\d+)\/layers(?:\/\d+)?$/.exec(router.state.location.pathname)
  if (early) queries.prefetchQuery(layersQuery(Number(early[1])))
  wentTo(router.state.location.pathname)
  router.subscribe(({ location }) => wentTo(location.pathname))
  fetchTheRest()
  return router
}

/** How long after the start the code of the other screens is fetched, so that going to one waits for nothing. */
const REST_AFTER_MS = 1500

function fetchTheRest() {
  setTimeout(async () => {
    try {
      for (const path of Object.keys(SCREENS)) await fetched(path)
    } catch {
      // whoever goes to a screen whose code does not come is told there
    }
  }, REST_AFTER_MS)
}
