/** What the short words on the strips and in the steps mean, each where it stands. */
const TERMS: readonly (readonly [RegExp, string])[] = [
  [/^hold|^held/, 'Hold: wire that fingers or pliers need to draw the last move tight; it is cut off.'],
  [/^spare/, 'Spare: for a ring that takes more than reckoned, and what the tape’s next mark adds.'],
  [/^lock/, 'Lock: wraps round the shoulder, the part of the band beside the head, that keep the ring shut.'],
  [
    /^over|^under|past the/,
    'Over, under, past: how a tail goes by a bead: away from the finger, next to it, or beside it.',
  ],
  [/^rise|^drop|^down|^up/, 'Rise, drop: the short way from the band up to the head, and back down.'],
  [/^bare/, 'Bare: base wire left unwoven, where the locks will lie.'],
  [/^leg/, 'Leg: wire that stands from the band up to what it carries.'],
  [/^eye/, 'Eye: a small closed ring turned in a wire’s end.'],
  [/^fold/, 'Fold: where one wire is bent back at its middle, so that both halves work.'],
  [/^rim/, 'Rim: round the edge of the starting eye, which closes the band.'],
  [/^doubl/, 'Double: the outer wire that follows the frame all round.'],
  [/^lap|^saw/, 'Lap, saw: wire past the last ring, and what the blade takes at each cut.'],
];

/** The meanings of the words that stand on these stretches, each once. */
export const meanings = (labels: readonly string[]): string[] =>
  TERMS.filter(([pattern]) => labels.some((label) => pattern.test(label))).map(([, text]) => text);
