// Lines under the top bar that stay for as long as they are true: who else has the project open, whether it is kept.
import { session, whyNotLasting } from '../session'
import { useAppSelector } from '../state/store'
import { Button } from '../ui'
import { saveProjectFile } from './save-project'

export function Notices() {
  const { role, trouble, project } = useAppSelector((state) => state.document)
  const planTrouble = useAppSelector((state) => state.plan.trouble)
  if (role === 'following')
    return (
      <Notice words="This project is open in another tab: what is done there is shown here.">
        <Button small onClick={() => void session.takeOver()}>
          Take it over
        </Button>
      </Notice>
    )
  if (role === 'reading')
    return (
      <Notice words="It was written by a newer Feuillet: it can be looked at, not changed. Parts of it may not be shown.">
        <SaveIt />
      </Notice>
    )
  const why = trouble ? `Not kept: ${trouble}.` : whyNotLasting
  if (why && project)
    return (
      <Notice words={why} grave>
        <SaveIt />
      </Notice>
    )
  return planTrouble ? <Notice words={planTrouble} /> : null
}

function SaveIt() {
  const project = useAppSelector((state) => state.document.project)
  return (
    <Button small onClick={() => project && saveProjectFile(project)}>
      Save it as a file
    </Button>
  )
}

function Notice({
  words,
  grave = false,
  children,
}: {
  words: string
  grave?: boolean
  children?: React.ReactNode
}) {
  return (
    <div
      role="status"
      className={`col-span-2 flex items-center gap-4 border-b px-4 py-1.5 text-[13.5px] ${grave ? 'border-crimson bg-crimson-pale' : 'border-ochre bg-ochre-pale'}`}
    >
      <span aria-hidden className={grave ? 'text-crimson' : 'text-ochre'}>
        {grave ? '■' : '▲'}
      </span>
      <span className="min-w-0 flex-1">{words}</span>
      {children}
    </div>
  )
}
