// What is shown where something of the page itself went wrong: what it was, and how the work is kept safe.
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary'
import type { ReactNode } from 'react'
import { Link, useRouteError } from 'react-router'
import { store } from '../state/store'
import { Button } from '../ui'
import { saveProjectFile } from './save-project'

/** In place of a page that could not be shown. */
export function BrokenPage() {
  return (
    <Trouble error={useRouteError()} onAgain={() => location.reload()} again="Load the page anew" whole />
  )
}

/** Keeps the trouble of one screen to itself: everything round it lives on. */
export function Contained({
  children,
  resetKey,
  onAgain,
}: {
  children: ReactNode
  resetKey: string
  onAgain?: () => void
}) {
  return (
    <ErrorBoundary FallbackComponent={BrokenScreen} resetKeys={[resetKey]} onReset={onAgain}>
      {children}
    </ErrorBoundary>
  )
}

const BrokenScreen = ({ error, resetErrorBoundary }: FallbackProps) => (
  <Trouble error={error} onAgain={resetErrorBoundary} again="Try again" />
)

interface Props {
  error: unknown
  again: string
  onAgain: () => void
  whole?: boolean
}

function Trouble({ error, again, onAgain, whole = false }: Props) {
  const { project } = store.getState().document
  return (
    <main role="alert" className="grid h-full place-content-center gap-3 p-8 text-center">
      <p className="font-head text-[20px]">{whole ? 'This page broke off' : 'This screen broke off'}</p>
      <p className="max-w-[56ch] text-soft">
        Something in Feuillet itself went wrong: {error instanceof Error ? error.message : String(error)}.
        Nothing of your work is lost.
      </p>
      <p className="flex justify-center gap-2">
        <Button look="main" onClick={onAgain}>
          {again}
        </Button>
        {project && <Button onClick={() => saveProjectFile(project)}>Save the project as a file</Button>}
      </p>
      {whole && (
        <Link to="/" reloadDocument className="text-plum underline">
          To the shelf
        </Link>
      )}
    </main>
  )
}
