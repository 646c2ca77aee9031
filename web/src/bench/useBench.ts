import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { changed } from '../api/changed';
import { Refused, type BenchEvent, type JobAtBench } from '../api/client';
import { happened, tellEvents, useJob, type Payload } from '../api/bench';
import { signedOut, useMayChange } from '../api/people';
import { useChanges } from '../api/useChanges';
import { keys, type ReaderOf } from '../api/queries';
import { useTell } from '../app/Notices';
import { keep, kept, withWaiting } from './waiting';

const AGAIN_MS = 1500;
const MOST_ASKED = 3;
/** What the server understood and won't have; whatever else went wrong, it is sent again. */
const refused = (error: unknown) => error instanceof Refused && error.status >= 400 && error.status < 500;

/** Says that something happened. Its id is what it is called from then on. */
export type Say = <K extends BenchEvent['kind']>(kind: K, payload: Payload<K>) => string;

/** A ring at the bench, as it stands on this device: what the server knows, and what is on its way there. */
export function useBench(id: string, reader: ReaderOf) {
  const job = useJob(id, reader);
  const queries = useQueryClient();
  const tell = useTell();
  const [waiting, setWaiting] = useState<readonly BenchEvent[]>(() => kept(id));
  const [away, setAway] = useState(false);
  const sending = useRef(false);
  const queue = useRef(waiting);
  const seen = job.data?.progress.number ?? 0;
  const put = useCallback(
    (next: readonly BenchEvent[]) => {
      queue.current = next;
      // Written down before it is sent: a tab that is closed now loses nothing.
      keep(id, next);
      setWaiting(next);
    },
    [id],
  );
  const upTo = useCallback(
    async (number: number) => {
      const known = () =>
        queries
          .getQueriesData<Partial<JobAtBench>>({ queryKey: ['job', id] })
          .some(([, answer]) => (answer?.progress?.number ?? -1) >= number);
      // While the server is gone the last answer that was kept is given, and knows too little.
      for (let asked = 0; asked < MOST_ASKED; asked += 1) {
        await changed(queries, ['job', id], known);
        if (known()) return;
      }
    },
    [id, queries],
  );
  const send = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      while (queue.current.length) {
        const batch = queue.current.slice(0, 100);
        try {
          const { number } = await tellEvents(id, [...batch]);
          setAway(false);
          await upTo(number);
          put(queue.current.slice(batch.length));
        } catch (error) {
          // Who signs in again finds everything that they counted still waiting.
          if (signedOut(error)) return;
          if (refused(error)) {
            tell({ text: error instanceof Error ? error.message : 'That could not be written down.' });
            put(queue.current.slice(batch.length));
          } else {
            setAway(true);
            await new Promise((done) => setTimeout(done, AGAIN_MS));
          }
        }
      }
    } finally {
      sending.current = false;
    }
  }, [id, put, upTo, tell]);
  useEffect(() => {
    void send();
  }, [send]);
  // What another device did is heard of; after a silence everything is asked for again. What is seen may be what was kept: that is said.
  const known = useRef(0);
  useEffect(() => {
    known.current = seen;
  }, [seen]);
  const ask = useCallback(
    (number: number) => {
      // What changed without an event is a photo.
      if (number <= known.current) void changed(queries, keys.photos(id));
      void upTo(number);
      // One of several: the others are asked for where they are shown.
      void changed(queries, keys.boards);
    },
    [id, queries, upTo],
  );
  useChanges(`/api/jobs/${id}/changes`, ask, setAway);
  const mayChange = useMayChange();
  const say: Say = useCallback(
    (kind, payload) => {
      if (!mayChange) {
        tell({ text: 'You look on here: whoever makes the ring counts.' });
        return '';
      }
      const event = happened(kind, payload, seen);
      put([...queue.current, event]);
      void send();
      return event.id;
    },
    [put, send, seen, mayChange, tell],
  );
  const progress = useMemo(() => (job.data ? withWaiting(job.data.progress, waiting) : undefined), [job.data, waiting]);
  const ended = progress && progress.state !== 'open';
  useEffect(() => {
    if (ended) void changed(queries, keys.jobs);
  }, [ended, queries]);
  return { job, progress, say, waiting: waiting.length, away };
}
