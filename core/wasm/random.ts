// Random numbers, the same from the same seed on any machine.

/** State of the random numbers (SplitMix64: Steele, Lea and Flood 2014). */
let seed: u64 = 1

export function sow(value: u32): void {
  seed = value
}

/** At least 0 and less than 1. */
export function random(): f64 {
  seed += 0x9e3779b97f4a7c15
  let z = seed
  z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9
  z = (z ^ (z >> 27)) * 0x94d049bb133111eb
  return <f64>((z ^ (z >> 31)) >> 11) / 9007199254740992
}
