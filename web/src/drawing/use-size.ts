import { useCallback, useState } from 'react'

/** Width and height of an element in CSS pixels, kept up as it changes. */
export function useSize(): [(element: Element | null) => void, { width: number; height: number }] {
  const [size, setSize] = useState({ width: 0, height: 0 })
  const ref = useCallback((element: Element | null) => {
    if (!element) return
    const observer = new ResizeObserver(() => {
      const { width, height } = element.getBoundingClientRect()
      setSize((old) => (old.width === width && old.height === height ? old : { width, height }))
    })
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  return [ref, size]
}
