import { memo, useMemo } from 'react';
import type { components } from '../api/schema.generated';
import { metalColours } from './metals';
import { SHADES, stoneColours } from './stones';

type Picture = components['schemas']['Picture'];

const USUAL = 'honey';

const stoneOf = (colour: string) => {
  const stops = stoneColours(colour).map((shade, k) => `<stop offset="${SHADES[k]}" stop-color="${shade}"/>`);
  return `<radialGradient id="${colour}" cx=".36" cy=".34" r=".75">${stops.join('')}</radialGradient>`;
};

/** The picture as one SVG image: a page of many rings stays a page of few elements. */
export function svgOf(picture: Picture): string {
  const lines = picture.lines.map((line) => {
    if (line.bead) {
      const [cx, cy, rx, ry] = line.bead;
      return `<ellipse cx="${cx}" cy="${cy}" rx="${rx}" ry="${ry}" fill="url(#${line.colour ?? USUAL})"/>`;
    }
    const { edge, body, shine } = metalColours(line.metal);
    const layer = (colour: string, share: number) =>
      `<path d="${line.d}" stroke="${colour}" stroke-width="${(line.width_mm * share).toFixed(2)}"/>`;
    return layer(edge, 1) + layer(body, 0.72) + layer(shine, 0.2);
  });
  const colours = new Set(picture.lines.filter((line) => line.bead).map((line) => line.colour ?? USUAL));
  const stones = [...colours].map(stoneOf).join('');
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${picture.box.join(' ')}" fill="none" stroke-linecap="round" ` +
    `stroke-linejoin="round">${stones}${lines.join('')}</svg>`
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
