// How what the kernel computes with lies in its memory: where each number of a shape, a room, a pose and a piece is, in bytes. Unless told otherwise
// a number takes four. core/src/stages/sheets/nest/overlap/kernel.ts writes it.

// ——— A shape: addresses and sizes, each four bytes, in this order.
/** Middles and radii of runs of eight points: xs, ys, radii, each `runs` long (a multiple of four). */
export const RUNS_AT: usize = 0
export const RUNS: usize = 4
/** Points along the outline: xs, ys, reach (mm of outline), each eight times `runs` long. */
export const POINTS_AT: usize = 8
/** Four points deep inside: xs, ys, reach. */
export const POLES_AT: usize = 12
/** Distances from the card (inside negative, whole units of two bytes) at the nodes of a grid of so many columns and rows. */
export const DISTANCE_AT: usize = 16
export const COLS: usize = 20
export const ROWS: usize = 24
/** First node, nodes a mm, farthest point, and what distances are counted in. */
export const X0: usize = 28
export const Y0: usize = 32
export const INV: usize = 36
export const RADIUS: usize = 40
export const UNIT: usize = 44
/** Corners of the convex hull, clockwise (eight bytes a number), and where they end. */
export const HULL_AT: usize = 48
export const HULL_END: usize = 52
/** Of each of `DIRECTIONS` ways round: how many bytes into the hull the farthest corner lies (two bytes each). */
export const FARTHEST_AT: usize = 56
export const DIRECTIONS: f64 = 256
/** By how much its overlaps count for more. */
export const HEFT: usize = 60

// ——— A room: its list of walls, how many there are, and what a piece may lie in (eight bytes a number).
export const ROOM_WALLS: usize = 0
export const ROOM_WALL_COUNT: usize = 4
export const ROOM_MIN_X: usize = 8
export const ROOM_MIN_Y: usize = 16
export const ROOM_MAX_X: usize = 24
export const ROOM_MAX_Y: usize = 32
export const ROOM_BYTES: usize = 40

// ——— A probe: a place that is asked about.
export const X: usize = 0
export const Y: usize = 4
export const COS: usize = 8
export const SIN: usize = 12
export const MIN_X: usize = 16
export const MAX_X: usize = 20
export const MIN_Y: usize = 24
export const MAX_Y: usize = 28
export const ROOM: usize = 32
export const PROBE_BYTES: usize = 36

// ——— A pose: numbers of eight bytes, a room, and what a piece costs there.
export const POSE_X: usize = 0
export const POSE_Y: usize = 8
export const POSE_TURN: usize = 16
export const POSE_COS: usize = 24
export const POSE_SIN: usize = 32
export const POSE_LEFT: usize = 40
export const POSE_RIGHT: usize = 48
export const POSE_UP: usize = 56
export const POSE_DOWN: usize = 64
export const POSE_ROOM: usize = 72
export const POSE_COST: usize = 76
export const POSE_BYTES: usize = 80

// ——— A turn that is worth a try: the numbers of a pose from `POSE_TURN` to `POSE_DOWN`.
export const TURN_BYTES: usize = 56

// ——— A piece: its turns, how many they are, how many of them lay an edge straight (they come first), and whether it may take any other.
export const PIECE_TURNS: usize = 0
export const PIECE_TURN_COUNT: usize = 4
export const PIECE_STRAIGHT: usize = 8
export const PIECE_FREE: usize = 12
