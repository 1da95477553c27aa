// A stage on one printed page: what scrolls on screen is laid in columns and drawn smaller until all of it is there.

/** Letters of less than this part of their size on the page cannot be read on paper. */
const SMALLEST = 0.5
/** Smaller letters wrap anew: a few rounds find the size at which all fits. */
const ROUNDS = 8

/** Lets the page be laid out as it is printed, and what scrolls be fitted, from before a print to after it. Gives what ends that. */
export function fitPrints(root: HTMLElement = document.documentElement): () => void {
  let fitted: HTMLElement[] = []
  const before = () => {
    root.classList.add('printing')
    fitted = [...root.querySelectorAll<HTMLElement>('main *, aside *')].filter(scrolls)
    for (const element of fitted) fit(element)
  }
  const after = () => {
    for (const element of fitted) element.style.zoom = ''
    fitted = []
    root.classList.remove('printing')
  }
  window.addEventListener('beforeprint', before)
  window.addEventListener('afterprint', after)
  return () => {
    after()
    window.removeEventListener('beforeprint', before)
    window.removeEventListener('afterprint', after)
  }
}

/** Whether an element would have to be scrolled to be seen whole. */
function scrolls(element: HTMLElement): boolean {
  const { overflowY, overflowX } = getComputedStyle(element)
  const mayScroll = [overflowX, overflowY].some((way) => way === 'auto' || way === 'scroll')
  return mayScroll && shareInSight(element) < 1
}

/** How much of an element is in sight, along the side of which less is. */
export const shareInSight = ({
  clientHeight,
  clientWidth,
  scrollHeight,
  scrollWidth,
}: Pick<Element, 'clientHeight' | 'clientWidth' | 'scrollHeight' | 'scrollWidth'>): number =>
  Math.min(1, (clientHeight + 1) / Math.max(1, scrollHeight), (clientWidth + 1) / Math.max(1, scrollWidth))

function fit(element: HTMLElement): void {
  let zoom = 1
  for (let k = 0; k < ROUNDS && zoom > SMALLEST; k++) {
    const share = shareInSight(element)
    if (share >= 1) return
    // In two directions at once a line saved is saved twice: go gently.
    zoom = Math.max(SMALLEST, zoom * Math.max(0.7, Math.sqrt(share)))
    element.style.zoom = String(zoom)
  }
}
