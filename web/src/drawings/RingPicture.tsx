import { memo, useMemo } from 'react';
import type { components } from '../api/schema.generated';
import { metalColours } from './metals';

type Picture = components['schemas']['Picture'];

const STONE =
  '<radialGradient id="s" cx=".36" cy=".34" r=".75"><stop offset="0" stop-color="#ffe9b0"/><stop offset=".3" stop-color="#e2a02c"/>' +
  '<stop offset=".8" stop-color="#a8690f"/><stop offset="1" stop-color="#75480a"/></radialGradient>';

/** The picture as one SVG image: a page of many rings stays a page of few elements. */
export function svgOf(picture: Picture): string {
  const lines = picture.lines.map((line) => {
    if (line.bead) {
      const [cx, cy, rx, ry] = line.bead;
      return `<ellipse cx="${cx}" cy="${cy}" rx="${rx}" ry="${ry}" fill="url(#s)"/>`;
    }
    const { edge, body, shine } = metalColours(line.metal);
    const layer = (colour: string, share: number) =>
      `<path d="${line.d}" stroke="${colour}" stroke-width="${(line.width_mm * share).toFixed(2)}"/>`;
    return layer(edge, 1) + layer(body, 0.72) + layer(shine, 0.2);
  });
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${picture.box.join(' ')}" fill="none" stroke-linecap="round" ` +
    `stroke-linejoin="round">${STONE}${lines.join('')}</svg>`
  );
}

/** A ring seen from above and in front: lines of its own moves, painted in the order in which they cover each other. */
export const RingPicture = memo(function RingPicture({ picture, label }: { picture: Picture; label: string }) {
  const source = useMemo(() => `data:image/svg+xml,${encodeURIComponent(svgOf(picture))}`, [picture]);
  return (
    <img
      src={source}
      alt={label}
      loading="lazy"
      decoding="async"
      style={{ display: 'block', width: '100%', height: '100%', objectFit: 'contain' }}
    />
  );
});
