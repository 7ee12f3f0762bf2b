import type { QueryClient } from '@tanstack/react-query'
import { createBrowserRouter, type LoaderFunction, Navigate, useLocation } from 'react-router'
import { FilesView } from './combined-files/FilesView'
import { DeployView } from './deploy/DeployView'
import { DriftView } from './drift/DriftView'
import { Shell } from './frame/Shell'
import { DefinitionView } from './game/DefinitionView'
import { WorkspacesView } from './game/WorkspacesView'
import { GameVersionView } from './game-version/GameVersionView'
import { RulesView } from './layer-rules/RulesView'
import { SuggestionView } from './layer-rules/SuggestionView'
import { LayersView } from './layers/LayersView'
import { layersQuery } from './layers/queries'
import { InboxView } from './library/InboxView'
import { IntakeView } from './library/IntakeView'
import { LibraryView } from './library/LibraryView'
import { ModScreen } from './library/ModScreen'
import { StorageView } from './library/StorageView'
import { ListsView } from './lists/ListsView'
import { LayersListView, OrderListView } from './lists/ListView'
import { LoadOrderView } from './load-order/LoadOrderView'
import { LoadRulesView } from './load-order/LoadRulesView'
import { ProposalView } from './load-order/ProposalView'
import { MendsView } from './mends/MendsView'
import { MergeView } from './mends/MergeView'
import { OverlapsView } from './overlaps/OverlapsView'
import { PathScreen } from './overlaps/PathScreen'
import { OverviewView } from './overview/OverviewView'
import { ProfilesView } from './profiles/ProfilesView'
import { RecordsView } from './records/RecordsView'
import { TestRunView } from './test-run/TestRunView'
import { TimelineView } from './timeline/TimelineView'
import { ToolsView } from './tools/ToolsView'

/** Leads an address that was given up to the one that took its place; what was selected stays. */
function Moved({ to }: { to: string }) {
  const { search, hash } = useLocation()
  return <Navigate to={{ pathname: to, search, hash }} replace />
}

/**
 * Every screen has an address of its own, and so has what is selected in it.
 *
 * @param queries where what a screen shows is asked for while the screen itself is still being built
 */
export function createRouter(queries: QueryClient) {
  const early: LoaderFunction = ({ params }) => {
    queries.prefetchQuery(layersQuery(Number(params.workspace)))
    return null
  }
  return createBrowserRouter([
    { path: '/', element: <Navigate to="/workspaces" replace /> },
    { path: '/workspaces', element: <WorkspacesView /> },
    {
      path: '/workspaces/:workspace',
      element: <Shell />,
      children: [
        { index: true, element: <OverviewView /> },
        { path: 'definition', element: <DefinitionView /> },
        { path: 'library', element: <LibraryView /> },
        { path: 'library/inbox', element: <InboxView /> },
        { path: 'library/inbox/:archive', element: <IntakeView /> },
        { path: 'library/storage', element: <StorageView /> },
        { path: 'library/:mod', element: <LibraryView /> },
        { path: 'library/:mod/:part', element: <ModScreen /> },
        { path: 'layers', element: <LayersView />, loader: early },
        { path: 'layers/suggestion', element: <SuggestionView /> },
        { path: 'layers/rules', element: <RulesView /> },
        { path: 'layers/lists', element: <ListsView kind="layers" /> },
        { path: 'layers/lists/:list', element: <LayersListView /> },
        { path: 'layers/:mod', element: <LayersView />, loader: early },
        { path: 'overlaps', element: <OverlapsView /> },
        { path: 'overlaps/path', element: <PathScreen /> },
        { path: 'profiles', element: <ProfilesView /> },
        { path: 'timeline', element: <TimelineView /> },
        { path: 'load-order', element: <LoadOrderView /> },
        { path: 'load-order/proposal', element: <ProposalView /> },
        { path: 'load-order/lists', element: <ListsView kind="load-order" /> },
        { path: 'load-order/lists/:list', element: <OrderListView /> },
        { path: 'load-order/rules', element: <LoadRulesView /> },
        { path: 'load-order/:plugin', element: <LoadOrderView /> },
        { path: 'records', element: <RecordsView /> },
        { path: 'records/:owner/:id', element: <RecordsView /> },
        { path: 'mends', element: <MendsView /> },
        { path: 'mends/combined-files', element: <FilesView /> },
        { path: 'mends/merge', element: <MergeView /> },
        { path: 'deploy', element: <DeployView /> },
        { path: 'deploy/drift', element: <DriftView /> },
        { path: 'deploy/game-version', element: <GameVersionView /> },
        // addresses of before, in bookmarks and in what others have written
        { path: 'mends/files', element: <Moved to="../mends/combined-files" /> },
        { path: 'deploy/folder', element: <Moved to="../deploy/drift" /> },
        { path: 'tools', element: <ToolsView /> },
        { path: 'tools/:tool', element: <ToolsView /> },
        { path: 'test-run', element: <TestRunView /> },
        { path: 'test-run/:run', element: <TestRunView /> },
        { path: '*', element: <Navigate to="." replace /> },
      ],
    },
    { path: '*', element: <Navigate to="/workspaces" replace /> },
  ])
}
