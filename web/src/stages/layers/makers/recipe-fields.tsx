// Fields of a recipe, as a table draws them. What is typed is checked by the recipe's schema before anything is made of it.
import { zodResolver } from '@hookform/resolvers/zod'
import { Controller, useForm, type DefaultValues, type FieldValues, type Path } from 'react-hook-form'
import type { z } from 'zod'
import { selectUnit } from '../../../state/selectors'
import { useAppSelector } from '../../../state/store'
import { Choice, LengthField, NumberField } from '../../../ui'

interface Common<R> {
  key: keyof R & string
  label: string
  /** Whether it is there at all; always where it is not given. */
  when?: (recipe: R) => boolean
}

export type RecipeField<R> =
  | (Common<R> & { kind: 'length'; min?: number; max?: number })
  | (Common<R> & { kind: 'number' | 'whole'; min: number; max: number; unitHint?: string })
  | (Common<R> & { kind: 'choice'; options: readonly { value: string; label: string; title?: string }[] })

interface Props<R> {
  recipe: R
  schema: z.ZodType<R>
  fields: readonly RecipeField<R>[]
  onChange: (recipe: R) => void
}

const LONGEST_MM = 1000

export function RecipeFields<R extends FieldValues>({ recipe, schema, fields, onChange }: Props<R>) {
  const unit = useAppSelector(selectUnit)
  const { control, setValue, handleSubmit } = useForm<R, unknown, R>({
    values: recipe,
    defaultValues: recipe as DefaultValues<R>,
    // A recipe is whole when it is checked: its defaults have been put in.
    resolver: zodResolver(schema as z.ZodType<R, R>),
  })
  const draw = (field: RecipeField<R>) => (
    <Controller
      key={field.key}
      control={control}
      name={field.key as Path<R>}
      render={({ field: { value }, fieldState: { error } }) => {
        const set = (next: unknown) => {
          setValue(field.key as Path<R>, next as never)
          void handleSubmit((whole) => onChange(whole))()
        }
        return (
          <div>
            {field.kind === 'choice' ? (
              <Choice label={field.label} value={value as string} options={field.options} onChange={set} />
            ) : field.kind === 'length' ? (
              <LengthField
                label={field.label}
                valueMm={value as number}
                unit={unit}
                min={field.min ?? 0}
                max={field.max ?? LONGEST_MM}
                onChange={set}
              />
            ) : (
              <NumberField
                label={field.label}
                value={value as number}
                min={field.min}
                max={field.max}
                whole={field.kind === 'whole'}
                unitHint={field.unitHint}
                onChange={set}
              />
            )}
            {error?.message && (
              <p role="alert" className="mt-1 text-right text-[13px] text-crimson">
                ▲ {error.message}
              </p>
            )}
          </div>
        )
      }}
    />
  )
  return fields.filter(({ when }) => when?.(recipe) ?? true).map(draw)
}
