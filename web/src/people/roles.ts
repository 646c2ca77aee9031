import type { Role } from '../api/client';

export const ROLES: readonly Role[] = ['owner', 'maker', 'viewer'];
/** What somebody is called in a list. */
export const CALLED: Record<Role, string> = { owner: 'Owner', maker: 'Maker', viewer: 'Looks on' };
/** What somebody may do who comes in. */
export const COMES_TO: Record<Role, string> = {
  owner: 'You come as an owner: you make rings, and say who else comes in.',
  maker: 'You come as a maker: you plan rings, take them to the bench and keep them here.',
  viewer: 'You come to look on: you see every ring and every bench, and change nothing.',
};
