import { StrictMode } from 'react'
import { createRoot, type Root } from 'react-dom/client'
import { Provider } from 'react-redux'
import { createBrowserRouter, Navigate, useParams } from 'react-router'
import type { Stage } from '@feuillet/core/project'
import { RouterProvider } from 'react-router/dom'
import { Toaster } from 'sonner'
import { Shelf } from './shell/shelf'
import { pathOf } from './shell/stage-names'
import { BrokenPage } from './shell/trouble'
import { store } from './state/store'
import { TipProvider } from './ui'
import { Workbench } from './shell/workbench'

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

/** Draws the application into an element of the page. */
export function show(place: HTMLElement): Root {
  const root = createRoot(place)
  root.render(
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
  return root
}
