/** How an entry of a menu looks, at rest, under the pointer and out of reach. */
export const menuItem =
  'cursor-pointer px-3 py-1.5 outline-none data-[disabled]:opacity-45 data-[highlighted]:bg-ink data-[highlighted]:text-white'
