import type { Plan } from '../api/client';

/** Whether a plan is of a ring that has a size: an ornament without a band has none, and nobody reads it on a mandrel. */
export const hasSize = (plan: Plan) => plan.band.sized_by !== 'nothing';
