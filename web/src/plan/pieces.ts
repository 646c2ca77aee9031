import type { PlannedWire } from '../api/client';

/** Pieces that are cut and marked alike, each kind once: where its first stands among the wires, and how many there are. */
export function alike(wires: readonly PlannedWire[]): { wire: PlannedWire; index: number; count: number }[] {
  const kinds = new Map<string, { wire: PlannedWire; index: number; count: number }>();
  wires.forEach((wire, index) => {
    // To the millimetre: nobody cuts or marks finer.
    const marks = wire.marks.map((m) => [m.label, Math.round(m.at_mm)]);
    const key = JSON.stringify([wire.role, wire.label, wire.cut_mm, marks]);
    const kind = kinds.get(key);
    if (kind) kind.count += 1;
    else kinds.set(key, { wire, index, count: 1 });
  });
  return [...kinds.values()];
}
