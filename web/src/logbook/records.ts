import type { JobListed } from '../api/client';

/** How far each finished ring came off its plan [mm of diameter], the oldest first. */
export const sizeErrors = (jobs: readonly JobListed[]): { title: string; off: number; said: string }[] =>
  jobs
    .flatMap(({ title, record }) =>
      record?.state === 'finished' && record.off_mm !== null
        ? [{ title, off: record.off_mm, said: record.off ?? '' }]
        : [],
    )
    .reverse();
