import '@fontsource-variable/bricolage-grotesque'
import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import './index.css'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { Provider } from 'react-redux'
import { createBrowserRouter, Navigate } from 'react-router'
import { RouterProvider } from 'react-router/dom'
import { Toaster } from 'sonner'
import { config } from 'zod'
import { Shelf } from './shell/shelf'
import { store } from './state/store'
import { Workbench } from './shell/workbench'

// The page's security policy forbids code made at run time.
config({ jitless: true })

const router = createBrowserRouter([
  { path: '/', element: <Shelf /> },
  // Stages by the names that they once had.
  { path: '/project/:projectId/build', element: <Navigate to="../assembly" relative="path" replace /> },
  { path: '/project/:projectId/log', element: <Navigate to="../journal" relative="path" replace /> },
  { path: '/project/:projectId/:stage?', element: <Workbench /> },
  { path: '*', element: <Navigate to="/" replace /> },
])

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={store}>
      <RouterProvider router={router} />
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
