/**
 * Lengths as makers type and read them: `8 1/2`, `8.5 in`, `216`, `21.6cm`. Stored always in mm. Inches print as the
 * fractions of a ruler (sixteenths), small ones as decimals; mm with one decimal at most. With inches go pounds of card and
 * degrees Fahrenheit (weights.ts), feet, fluid ounces and their kin (measures.ts). Sentences carry their lengths as values (said.ts) and are worded in the project's unit
 * where they are read.
 */
export * from './lengths'
export * from './weights'
export * from './measures'
export * from './said'
