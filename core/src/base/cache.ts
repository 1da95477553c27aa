/** Remembers results by a key of all they depend on; starts anew once it holds too many. */
export class Memory<T> {
  private readonly known = new Map<string, T>()

  constructor(private readonly most: number) {}

  get(key: string, make: () => T): T {
    const known = this.known.get(key)
    if (known !== undefined) return known
    const made = make()
    if (this.known.size >= this.most) this.known.clear()
    this.known.set(key, made)
    return made
  }
}
