import '@fontsource-variable/bricolage-grotesque'
import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import './index.css'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { Provider } from 'react-redux'
import { createBrowserRouter, Navigate, useParams } from 'react-router'
import type { Stage } from '@feuillet/core/project'
import { RouterProvider } from 'react-router/dom'
import { Toaster } from 'sonner'
import { config } from 'zod'
import { Shelf } from './shell/shelf'
import { pathOf } from './shell/stage-names'
import { BrokenPage } from './shell/trouble'
import { store } from './state/store'
import { TipProvider } from './ui'
import { Workbench } from './shell/workbench'

// The page's security policy forbids code made at run time.
config({ jitless: true })

function OldStage({ now }: { now: Stage }) {
  const { projectId = '' } = useParams()
  return <Navigate to={pathOf(projectId, now)} replace />
}

const router = createBrowserRouter([
  {
    errorElement: <BrokenPage />,
    children: [
      { path: '/', element: <Shelf /> },
      // Stages by the names that they once had.
      { path: '/project/:projectId/build', element: <OldStage now="assembly" /> },
      { path: '/project/:projectId/log', element: <OldStage now="journal" /> },
      { path: '/project/:projectId/:stage?', element: <Workbench /> },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
])

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={store}>
      <TipProvider>
        <RouterProvider router={router} />
      </TipProvider>
      <Toaster
        position="bottom-center"
        toastOptions={{
          unstyled: true,
          duration: 7000,
          classNames: { toast: 'toast', actionButton: 'toast-action' },
        }}
      />
    </Provider>
  </StrictMode>,
)
