import type { ButtonHTMLAttributes } from 'react'
import { Tip } from './tip'

type Props = ButtonHTMLAttributes<HTMLButtonElement> & { look?: 'main' | 'plain' | 'quiet'; small?: boolean }

const looks = {
  main: 'bg-plum text-white clip-corner hover:bg-[#56235d] font-semibold',
  plain: 'border border-ink bg-panel hover:bg-sheet font-medium',
  quiet: 'text-plum underline underline-offset-2 hover:text-ink font-semibold px-0!',
}

export function Button({
  look = 'plain',
  small = false,
  className = '',
  type = 'button',
  title,
  ...rest
}: Props) {
  return (
    <Tip text={title}>
      <button
        type={type}
        className={`inline-flex items-center justify-center gap-2 ${look === 'quiet' ? 'py-0' : small ? 'px-2.5 py-1' : 'px-4 py-2'} ${looks[look]} ${className}`}
        {...rest}
      />
    </Tip>
  )
}
