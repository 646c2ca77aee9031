import type { JobListed } from '../api/client';

/** A US size in inside diameter [mm]: 0.032 in. */
export const US_STEP_MM = 0.8128;

/** The wire that a ring used beside what was planned, over its pieces whose rest was measured; null where none was. */
export function wireOf(job: JobListed): { used: number; planned: number } | null {
  const measured = (job.record?.pieces ?? []).filter((piece) => piece.used_mm !== null);
  if (!measured.length) return null;
  return {
    used: measured.reduce((sum, piece) => sum + (piece.used_mm ?? 0), 0),
    planned: measured.reduce((sum, piece) => sum + piece.planned_mm, 0),
  };
}

/** How far each finished ring came off its plan [US sizes], the oldest first. */
export const sizeErrors = (jobs: readonly JobListed[]): { title: string; off: number }[] =>
  jobs
    .filter((job) => job.state === 'finished' && job.record?.size_mm)
    .map((job) => ({
      title: job.title,
      off: ((job.record?.size_mm ?? 0) - (job.record?.planned_size_mm ?? 0)) / US_STEP_MM,
    }))
    .reverse();
