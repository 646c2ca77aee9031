import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { changed } from '../api/changed';
import { SIGNED_OUT } from '../api/client';
import { signedOut, useMe } from '../api/people';
import { keys } from '../api/queries';
import { SignInScreen } from '../people/SignInScreen';
import { Shell } from './Shell';

/** Every screen, once it is known who is here. Without the server it is whoever was here last. */
export function Inside() {
  const me = useMe();
  const queries = useQueryClient();
  useEffect(() => {
    const ask = () => {
      // The answer to this question says it too.
      if (!queries.isFetching({ queryKey: keys.me })) void changed(queries, keys.me);
    };
    window.addEventListener(SIGNED_OUT, ask);
    return () => window.removeEventListener(SIGNED_OUT, ask);
  }, [queries]);
  if (signedOut(me.error)) return <SignInScreen />;
  // The first answer is waited for: drafts belong to a person. A server that is away isn't.
  if (!me.data && me.failureCount === 0) return null;
  return <Shell key={`${me.data?.person_id ?? ''} ${me.data?.here.workshop_id ?? ''}`} />;
}
