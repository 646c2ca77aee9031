import { memo, useId } from 'react';
import type { components } from '../api/schema.generated';
import { metalColours } from './metals';

type Picture = components['schemas']['Picture'];

/** A ring seen from above and in front: lines of its own moves, painted in the order in which they cover each other. */
export const RingPicture = memo(function RingPicture({ picture, label }: { picture: Picture; label: string }) {
  const id = useId();
  return (
    <svg
      viewBox={picture.box.join(' ')}
      role="img"
      aria-label={label}
      style={{ display: 'block', width: '100%', height: '100%' }}
    >
      <defs>
        <radialGradient id={id} cx="0.36" cy="0.34" r="0.75">
          <stop offset="0" stopColor="#ffe9b0" />
          <stop offset="0.3" stopColor="#e2a02c" />
          <stop offset="0.8" stopColor="#a8690f" />
          <stop offset="1" stopColor="#75480a" />
        </radialGradient>
      </defs>
      {picture.lines.map((line, k) => {
        if (line.bead) {
          const [cx, cy, rx, ry] = line.bead;
          return <ellipse key={k} cx={cx} cy={cy} rx={rx} ry={ry} fill={`url(#${id})`} />;
        }
        const colours = metalColours(line.metal);
        return (
          <g key={k} fill="none" strokeLinecap="round" strokeLinejoin="round">
            <path d={line.d} stroke={colours.edge} strokeWidth={line.width_mm} />
            <path d={line.d} stroke={colours.body} strokeWidth={line.width_mm * 0.72} />
            <path d={line.d} stroke={colours.shine} strokeWidth={line.width_mm * 0.2} opacity="0.75" />
          </g>
        );
      })}
    </svg>
  );
});
