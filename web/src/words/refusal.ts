import type { Problem } from '../api/client';

/** `Is out of range. Use 1 to 4.` */
export const sentence = (problem: Problem) => {
  const said = problem.reason.charAt(0).toUpperCase() + problem.reason.slice(1);
  if (!problem.accepted) return `${said}.`;
  const use = /^(use|try|say|at least|at most|up to) /.test(problem.accepted)
    ? problem.accepted.charAt(0).toUpperCase() + problem.accepted.slice(1)
    : `Use ${problem.accepted}`;
  return `${said}. ${use}.`;
};
