// Shapes of packages that ship none for the way they are used here.
declare module 'css-tree/parser' {
  import type { CssNode, ParseOptions } from 'css-tree'
  export default function parse(text: string, options?: ParseOptions): CssNode
}

declare module 'clipper2-wasm' {
  export * from 'clipper2-wasm/dist/clipper2z'
  const factory: unknown
  export default factory
}

declare module 'fft.js' {
  export default class FFT {
    constructor(size: number)
    createComplexArray(): number[]
    realTransform(out: number[], data: ArrayLike<number>): void
    inverseTransform(out: number[], data: ArrayLike<number>): void
  }
}
