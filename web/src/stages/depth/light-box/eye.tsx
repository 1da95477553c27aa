// Where the eye is: turned about the work by a drag or by keys, or set to a view with a name.
import { useEffect, useRef, type RefObject } from 'react'
import { useFrame, useThree } from '@react-three/fiber'
import { PerspectiveCamera, Vector3 } from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'

export type Eye = 'front' | 'left' | 'above' | 'side'

/** Names of the views, and the way from the work to the eye. */
export const EYES: Record<Eye, { label: string; from: readonly [number, number, number] }> = {
  front: { label: 'from the front', from: [0, 0, 1] },
  left: { label: 'from the left', from: [-0.75, 0.12, 0.72] },
  above: { label: 'from above', from: [0, 0.8, 0.65] },
  side: { label: 'edge on', from: [-1, 0, 0.05] },
}

/** Steps of the keys, degrees and factors. */
const TURN_DEG = 6
const CLOSER = 1.15
const ANGLE_DEG = 30

export interface EyeHandle {
  turn: (right: number, down: number) => void
  closer: (times: number) => void
}

/** The camera and its controls, about a middle and as far off as a size asks for (mm). */
export function EyeControl({
  eye,
  middle,
  sizeMm,
  handleRef,
  onMoved,
}: {
  eye: { name: Eye; at: number }
  middle: readonly [number, number, number]
  sizeMm: number
  handleRef: RefObject<EyeHandle | null>
  onMoved: () => void
}) {
  const get = useThree((state) => state.get)
  const controls = useRef<OrbitControls | null>(null)
  const moved = useRef(onMoved)
  useEffect(() => {
    moved.current = onMoved
  })
  const [mx, my, mz] = middle
  useEffect(() => {
    const { camera, gl, invalidate } = get()
    const own = new OrbitControls(camera, gl.domElement)
    own.enableDamping = false
    own.addEventListener('change', () => {
      moved.current()
      invalidate()
    })
    controls.current = own
    handleRef.current = {
      turn: (right, down) => {
        const way = camera.position.clone().sub(own.target)
        way.applyAxisAngle(new Vector3(0, 1, 0), (-right * TURN_DEG * Math.PI) / 180)
        const side = new Vector3(0, 1, 0).cross(way).normalize()
        const next = way.clone().applyAxisAngle(side, (down * TURN_DEG * Math.PI) / 180)
        // Never over the top, where up and down change places.
        if (Math.abs(next.clone().normalize().y) < 0.98) way.copy(next)
        camera.position.copy(own.target).add(way)
        own.update()
      },
      closer: (times) => {
        camera.position
          .sub(own.target)
          .divideScalar(CLOSER ** times)
          .add(own.target)
        own.update()
      },
    }
    return () => {
      handleRef.current = null
      own.dispose()
    }
  }, [get, handleRef])
  useEffect(() => {
    const { camera, invalidate } = get()
    const own = controls.current
    if (!own || !(camera instanceof PerspectiveCamera)) return
    camera.fov = ANGLE_DEG
    camera.near = sizeMm / 50
    camera.far = sizeMm * 30
    const far = (sizeMm * 0.62) / Math.tan((ANGLE_DEG * Math.PI) / 360)
    const way = new Vector3(...EYES[eye.name].from).normalize().multiplyScalar(far)
    own.target.set(mx, my, mz)
    camera.position.set(mx, my, mz).add(way)
    camera.updateProjectionMatrix()
    own.update()
    invalidate()
  }, [get, eye, mx, my, mz, sizeMm])
  return null
}

/** A picture is slow that takes longer (ms); a few of them ask for plainer ones. */
const SLOW_MS = 90
const SLOW_PICTURES = 3

/** Watches how long pictures take while the work is turned. */
export function Pace({ onSlow, onFirst }: { onSlow: () => void; onFirst: () => void }) {
  const slow = useRef(0)
  const first = useRef(true)
  useFrame(({ gl, scene, camera }) => {
    const begun = performance.now()
    gl.render(scene, camera)
    // Software has drawn it only once a pixel is asked for.
    if (first.current) {
      first.current = false
      onFirst()
      return
    }
    if (performance.now() - begun > SLOW_MS) slow.current++
    if (slow.current === SLOW_PICTURES) onSlow()
  }, 1)
  return null
}
