import type { LoadView, SheetDrawing } from '@feuillet/core/stages/sheets'
import { usePlan } from '../../plan'

interface StepSheet {
  load: LoadView | undefined
  /** It is cut: as it was, and not as the plan has it. */
  isCut: boolean
}

/** The sheet of a step: as it lies in the plan, or as it was cut. */
export function useStepSheet(loadId: string | null): StepSheet {
  const planned = usePlan('loads')?.find(({ id }) => id === loadId)
  const cut = usePlan('cutLoads')?.find(({ id }) => id === loadId)
  return { load: cut ?? planned, isCut: cut !== undefined }
}

/** Its outlines as they are drawn small; null until they are there. */
export function useSketch({ load, isCut }: StepSheet): SheetDrawing | null {
  const sketches = usePlan(isCut ? 'cutSketches' : 'sketches')
  return sketches?.find(({ loadId }) => loadId === load?.id)?.drawn ?? null
}

/** Its outlines as they are drawn large; null until they are there. */
export function useLargeSheet({ load, isCut }: StepSheet): SheetDrawing | null {
  return usePlan(isCut ? 'cutSheet' : 'sheet', load ? load.id : null) ?? null
}
