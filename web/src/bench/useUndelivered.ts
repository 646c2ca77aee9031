import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { changed } from '../api/changed';
import { tellEvents } from '../api/bench';
import { keys } from '../api/queries';
import { keep, kept, waitingJobs } from './waiting';

/** What was tapped at a bench that was left before the server had heard of it: told from wherever the maker is now. */
export function useUndelivered(path: string) {
  const queries = useQueryClient();
  useEffect(() => {
    const send = async () => {
      for (const job of waitingJobs()) {
        // An open bench tells what happens at it itself.
        if (path.endsWith(`/bench/${job}`)) continue;
        const events = kept(job);
        try {
          for (let from = 0; from < events.length; from += 100) await tellEvents(job, events.slice(from, from + 100));
        } catch {
          // It waits on: for the next page, or for its own bench.
          continue;
        }
        keep(job, []);
        await changed(queries, keys.jobs);
      }
    };
    const again = () => void send();
    again();
    window.addEventListener('online', again);
    return () => window.removeEventListener('online', again);
  }, [path, queries]);
}
