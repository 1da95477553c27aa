// Fields of a thing with a schema, as a table draws them. What is typed is checked by the schema before it is handed on.
import { zodResolver } from '@hookform/resolvers/zod'
import { Controller, useForm, type DefaultValues, type FieldValues, type Path } from 'react-hook-form'
import type { z } from 'zod'
import type { Unit } from '@feuillet/core/base/units'
import { Choice } from './choice'
import { AreaField, LengthField, NumberField } from './fields'
import { SelectField } from './select'
import { Switch } from './switch'

interface Common<R extends FieldValues> {
  key: Path<R>
  label: string
  /** Whether it is there at all; always where it is not given. */
  when?: (value: R) => boolean
}

export type SchemaField<R extends FieldValues> =
  | (Common<R> & { kind: 'length'; min?: number; max?: number })
  | (Common<R> & { kind: 'area'; min: number; max: number })
  | (Common<R> & { kind: 'number' | 'whole'; min: number; max: number; unitHint?: string })
  | (Common<R> & { kind: 'switch' })
  | (Common<R> & { kind: 'select'; options: readonly { value: string; label: string }[] })
  | (Common<R> & {
      kind: 'choice'
      /** Its label stands above it. */
      captioned?: boolean
      options: readonly { value: string; label: string; title?: string }[]
    })

interface Props<R extends FieldValues> {
  value: R
  unit: Unit
  schema: z.ZodType<R>
  fields: readonly SchemaField<R>[]
  onChange: (value: R) => void
}

const LONGEST_MM = 1000

export function SchemaFields<R extends FieldValues>({
  value: whole,
  unit,
  schema,
  fields,
  onChange,
}: Props<R>) {
  const { control, setValue, handleSubmit } = useForm<R, unknown, R>({
    values: whole,
    defaultValues: whole as DefaultValues<R>,
    // It is whole when it is checked: its defaults have been put in.
    resolver: zodResolver(schema as z.ZodType<R, R>),
  })
  const draw = (field: SchemaField<R>) => (
    <Controller
      key={`${field.key} ${field.label}`}
      control={control}
      name={field.key}
      render={({ field: { value }, fieldState: { error } }) => {
        // A part that has just been put in is known to the form a moment later.
        if (value === undefined || value === null) return <></>
        const set = (next: unknown) => {
          setValue(field.key, next as never)
          void handleSubmit((checked) => onChange(checked))()
        }
        return (
          <div>
            {field.kind === 'choice' ? (
              <Choice
                label={field.label}
                captioned={field.captioned ?? false}
                value={value as string}
                options={field.options}
                onChange={set}
              />
            ) : field.kind === 'switch' ? (
              <Switch label={field.label} checked={value as boolean} onChange={set} />
            ) : field.kind === 'select' ? (
              <SelectField
                label={field.label}
                value={value as string}
                options={field.options}
                onChange={set}
              />
            ) : field.kind === 'length' ? (
              <LengthField
                label={field.label}
                valueMm={value as number}
                unit={unit}
                min={field.min ?? 0}
                max={field.max ?? LONGEST_MM}
                onChange={set}
              />
            ) : field.kind === 'area' ? (
              <AreaField
                label={field.label}
                valueMm2={value as number}
                unit={unit}
                min={field.min}
                max={field.max}
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
  return fields.filter(({ when }) => when?.(whole) ?? true).map(draw)
}
