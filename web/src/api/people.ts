import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { forgetKept } from '../app/offline';
import { changed } from './changed';
import { answer, api, Refused, type Me, type Role } from './client';
import type { components } from './schema.generated';
import { keys, untilThere } from './queries';

/** Who is here. Asked again until the server is there; that nobody is signed in is an answer. */
export const useMe = () =>
  useQuery({
    queryKey: keys.me,
    queryFn: () => answer(api.GET('/api/me')),
    staleTime: Infinity,
    ...untilThere,
  });

export const signedOut = (error: unknown) => error instanceof Refused && error.status === 401;

/** Whether whoever is here may change anything. */
export const useMayChange = () => useMe().data?.here.role !== 'viewer';

export const usePeople = (enabled: boolean) =>
  useQuery({ queryKey: keys.people, queryFn: () => answer(api.GET('/api/people')), enabled, ...untilThere });

/** What a link offers; a link that is dead is an answer too. */
export const useOffer = (token: string) =>
  useQuery({
    queryKey: keys.offer(token),
    queryFn: () => answer(api.POST('/api/links/look', { body: { token } })),
    enabled: token !== '',
    ...untilThere,
  });

interface Who {
  name: string;
  password: string;
}

/** Whoever comes or goes: everything that was asked for so far was asked by somebody else. */
export function useComing() {
  const queries = useQueryClient();
  const onSuccess = async () => {
    // From now on nothing is typed for whoever was here before, also while what was kept for them is forgotten.
    queries.getQueryCache().find({ queryKey: keys.me })?.reset();
    await forgetKept();
    await queries.resetQueries();
  };
  return {
    first: useMutation({ mutationFn: (body: Who) => answer(api.POST('/api/me', { body })), onSuccess }),
    signIn: useMutation({ mutationFn: (body: Who) => answer(api.POST('/api/sign-in', { body })), onSuccess }),
    take: useMutation({
      mutationFn: (body: Who & { token: string }) => answer(api.POST('/api/links/take', { body })),
      onSuccess,
    }),
    signOut: useMutation({
      mutationFn: (everywhere: boolean) => answer(api.POST('/api/sign-out', { params: { query: { everywhere } } })),
      onSuccess,
    }),
    go: useMutation({
      mutationFn: (workshop_id: string) => answer(api.PUT('/api/me/workshop', { body: { workshop_id } })),
      onSuccess,
    }),
  };
}

/** What an owner does for the others, and everybody for themselves. */
export function usePeopleChanges() {
  const queries = useQueryClient();
  const onSuccess = () => changed(queries, keys.people);
  const path = (person_id: string) => ({ params: { path: { person_id } } });
  return {
    invite: useMutation({ mutationFn: (role: Role) => answer(api.POST('/api/links', { body: { role } })), onSuccess }),
    takeBack: useMutation({
      mutationFn: (link_id: string) => answer(api.DELETE('/api/links/{link_id}', { params: { path: { link_id } } })),
      onSuccess,
    }),
    make: useMutation({
      mutationFn: ({ id, role }: { id: string; role: Role }) =>
        answer(api.PUT('/api/people/{person_id}', { ...path(id), body: { role } })),
      onSuccess,
    }),
    letGo: useMutation({
      mutationFn: (id: string) => answer(api.DELETE('/api/people/{person_id}', path(id))),
      onSuccess,
    }),
    passwordLink: useMutation({
      mutationFn: (id: string) => answer(api.POST('/api/people/{person_id}/link', path(id))),
      onSuccess,
    }),
    password: useMutation({
      mutationFn: (body: { current: string; password: string }) => answer(api.PUT('/api/me/password', { body })),
    }),
    open: useMutation({
      mutationFn: (name: string) => answer(api.POST('/api/workshops', { body: { name } })),
      onSuccess: () => changed(queries, keys.me),
    }),
  };
}

/** How somebody reads figures goes with them; where nobody has a name it stays in the browser. */
export const keepPreferences = (body: Me['preferences']) =>
  answer(api.PUT('/api/me/preferences', { body: body as components['schemas']['Preferences'] }));
