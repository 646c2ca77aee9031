const NAMES: Record<string, string> = {
  stretch: 'Stretch it',
  overlap: 'By its overlap',
  slide: 'Slide it down the taper',
  'lock-again': 'Lock it again',
  hammer: 'Hammer its back',
  'back-3': 'A thin wrap at the back',
  'back-4': 'A wrap at the back',
  splice: 'A new piece of wire',
  accept: 'For another finger',
};

/** What a way to another size is called, and whether it goes that far. */
export const wayName = ({ code, reaches }: { code: string; reaches: boolean }) =>
  `${NAMES[code] ?? code}${reaches ? '' : ': not this far'}`;
