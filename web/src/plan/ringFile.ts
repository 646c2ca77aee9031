import type { Draft } from '../api/client';

const FORMAT = 'pliant-coil/ring';
const PARTS = ['finger', 'wires', 'band', 'head', 'finish', 'sizing'];

/** Write a ring file into the maker's downloads. */
export function writeRingFile(draft: Draft): void {
  const name = (typeof draft.title === 'string' ? draft.title : '').toLowerCase().replace(/[^a-z0-9]+/g, '-');
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([JSON.stringify(draft, null, 2)], { type: 'application/json' }));
  link.download = `${name.replace(/^-|-$/g, '') || 'ring'}.ring.json`;
  link.click();
  URL.revokeObjectURL(link.href);
}

/** The ring in a file's text; throws with the reason for what is none. What is wrong inside a ring, the server says at its field. */
export function readRingText(text: string): Draft {
  const read: unknown = JSON.parse(text);
  if (typeof read !== 'object' || read === null || Array.isArray(read))
    throw new SyntaxError('a ring file is one JSON object');
  const draft = read as Draft;
  const isRing = draft.format === FORMAT || (draft.format === undefined && PARTS.some((part) => part in draft));
  if (!isRing) throw new SyntaxError(`it doesn’t say that it is a ring: “format” is “${FORMAT}” in one`);
  return draft;
}
