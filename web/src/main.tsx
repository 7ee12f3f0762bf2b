import '@fontsource/ibm-plex-mono/latin-400.css'
import '@fontsource/ibm-plex-mono/latin-500.css'
import '@fontsource/ibm-plex-mono/latin-ext-400.css'
import '@fontsource-variable/public-sans/wght.css'
import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { Tooltip } from 'radix-ui'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router/dom'
import { Refused } from './api/client'
import { keepFocus } from './frame/focus'
import { NoticesProvider } from './frame/Notices'
import { startTheme } from './frame/theme'
import { createRouter } from './routes'
import './styles.css'
import { HINT_DELAY } from './ui/Hint'
import { PointedHint } from './ui/PointedHint'

startTheme()
keepFocus()

const queries = new QueryClient({
  queryCache: new QueryCache(),
  mutationCache: new MutationCache(),
  defaultOptions: {
    // the server is on this machine: that a network is gone says nothing of it
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      // events tell when an answer is old; asking again on every focus would only flicker
      staleTime: Number.POSITIVE_INFINITY,
      refetchOnWindowFocus: false,
      // a refusal stays one however often it is asked
      retry: (failures, error) => failures < 2 && error instanceof Refused && error.status === 0,
    },
  },
})

const router = createRouter(queries)

const root = document.getElementById('root')
if (!root) throw new Error('index.html has no #root')
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <Tooltip.Provider delayDuration={HINT_DELAY} skipDelayDuration={150}>
        <NoticesProvider>
          <RouterProvider router={router} />
          <PointedHint />
        </NoticesProvider>
      </Tooltip.Provider>
    </QueryClientProvider>
  </StrictMode>,
)
