/**
 * The graph of results: nodes (graph.ts) say what of the project they read (reads.ts) and which other nodes they need; the
 * planner keeps results by key, computes only what is stale, and can be stopped between any two nodes. It knows no stage.
 */
export * from './graph'
export { type Reads } from './reads'
