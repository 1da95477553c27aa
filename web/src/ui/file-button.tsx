import type { ComponentProps, ReactNode, Ref } from 'react'
import { useRef } from 'react'
import { Button } from './button'

interface Files {
  /** What the chooser is for, as it is read out. */
  label: string
  accept: string
  multiple?: boolean
  onFiles: (files: File[]) => void
}

/** Kinds of file that makers bring in. */
export const ACCEPTS = {
  picture: 'image/png,image/jpeg,image/webp',
  table: '.csv,text/csv',
  font: '.ttf,.otf,.woff',
  drawing: '.svg,.svgz,.dxf,.zip,.json,image/svg+xml,application/zip',
  project: '.json,.zip,application/json,application/zip',
}

/** The chooser of files itself: opened by whatever clicks it. The same file can be chosen again. */
export function FileInput({
  label,
  onFiles,
  className = 'hidden',
  ref,
  ...rest
}: Files & { className?: string; ref?: Ref<HTMLInputElement> }) {
  return (
    <input
      ref={ref}
      type="file"
      aria-label={label}
      className={className}
      onChange={(event) => {
        const files = [...(event.target.files ?? [])]
        event.target.value = ''
        if (files.length > 0) onFiles(files)
      }}
      {...rest}
    />
  )
}

/** A button that asks for a file. */
export function FileButton({
  label,
  accept,
  multiple,
  onFiles,
  children,
  ...rest
}: Files & Omit<ComponentProps<typeof Button>, 'onClick'> & { children: ReactNode }) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button {...rest} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <FileInput ref={input} label={label} accept={accept} multiple={multiple ?? false} onFiles={onFiles} />
    </>
  )
}
