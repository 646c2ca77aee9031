import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef, useState } from 'react';
import { changed } from './changed';
import { api, asItIs, Refused, type ImportTold, type Problem } from './client';
import { keys } from './queries';

/** What comes in of an archive, as it comes: each line is told; the last one is returned. Throws `Refused`. */
export async function bringIn(archive: Blob, onLine: (line: ImportTold) => void, signal: AbortSignal) {
  const { response, error } = await api.POST('/api/workshop/archive', {
    ...asItIs(archive as File, 'application/zip'),
    parseAs: 'stream',
    signal,
  });
  if (!response.ok || !response.body)
    throw new Refused((error as { errors?: Problem[] } | undefined)?.errors ?? [], response.status);
  return lastOf(response.body, onLine);
}

/** The last of the lines of JSON that a stream holds, each told as it comes. */
export async function lastOf(body: ReadableStream<Uint8Array>, onLine: (line: ImportTold) => void) {
  let last: ImportTold | null = null;
  let rest = '';
  const reader = body.pipeThrough(new TextDecoderStream() as unknown as ReadableWritablePair<string, Uint8Array>);
  for await (const part of reader as unknown as AsyncIterable<string>) {
    const lines = (rest + part).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) {
      last = JSON.parse(line) as ImportTold;
      onLine(last);
    }
  }
  return last;
}

/** Bringing in an archive: how far it has come, and stopping it. */
export function useArchive() {
  const queries = useQueryClient();
  const [coming, setComing] = useState<ImportTold | null>(null);
  const [busy, setBusy] = useState(false);
  const stop = useRef<AbortController | null>(null);
  const take = useCallback(
    async (archive: Blob) => {
      stop.current = new AbortController();
      setBusy(true);
      let newest: ImportTold | null = null;
      try {
        await bringIn(
          archive,
          (line) => {
            newest = line;
            setComing(line);
          },
          stop.current.signal,
        );
        return newest;
      } catch (error) {
        // Stopped: what came in by then stays.
        if (error instanceof DOMException && error.name === 'AbortError') return newest;
        throw error;
      } finally {
        setBusy(false);
        setComing(null);
        void changed(queries, keys.rings);
        void changed(queries, keys.jobs);
      }
    },
    [queries],
  );
  return { take, busy, coming, stop: () => stop.current?.abort() };
}
