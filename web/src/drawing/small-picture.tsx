import type { Picture } from '../session/vault'

/** A picture as it is kept for the shelf: shapes in flat colours. */
export function SmallPicture({ picture: { box, shapes } }: { picture: Picture }) {
  const [x, y, w, h] = box
  return (
    <svg
      viewBox={`${x - w * 0.02} ${y - h * 0.02} ${w * 1.04} ${h * 1.04}`}
      className="h-full w-full"
      aria-hidden
    >
      {shapes.map(({ path, fill }, i) => (
        <g key={i}>
          <path
            d={path}
            fillRule="evenodd"
            fill="#000"
            opacity={0.16}
            transform={`translate(0 ${w * 0.006})`}
          />
          <path d={path} fillRule="evenodd" fill={fill} stroke="rgb(0 0 0 / 0.35)" strokeWidth={w / 600} />
        </g>
      ))}
    </svg>
  )
}
