import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { useArchive } from '../api/archive';
import type { ImportTold } from '../api/client';
import { FileChoice } from '../ui/FileChoice';

const several = (n: number, one: string, many: string) => (n === 1 ? `1 ${one}` : `${n} ${many}`);

/** What came in, and what didn't and why; of one that was stopped, what had come in by then. */
function toldOf(told: ImportTold | null): string[] {
  if (!told) return ['Nothing came in.'];
  const came = [
    several(told.rings, 'ring', 'rings'),
    several(told.records, 'record', 'records'),
    several(told.photos, 'photo', 'photos'),
  ];
  return [
    `${told.done ? 'In:' : `Stopped after ${told.read} of ${told.files} files. In:`} ${came.join(', ')}.`,
    ...(told.known ? [`${several(told.known, 'record or photo was', 'records and photos were')} here already.`] : []),
    ...told.refused.map((file) => `${file.name} didn’t come in: ${file.reason}`),
  ];
}

/** The whole workshop as open files, out and in. */
export function WholeWorkshop() {
  const { take, busy, coming, stop } = useArchive();
  const chooser = useRef<HTMLInputElement>(null);
  const [told, setTold] = useState<string[]>([]);
  const bring = async (archive: File) => {
    setTold([]);
    try {
      setTold(toldOf(await take(archive)));
    } catch (error) {
      setTold([error instanceof Error ? error.message : 'It can’t be read.']);
    }
  };
  return (
    <Box
      component="section"
      aria-label="The whole workshop"
      sx={{ mt: 3, pt: 2, borderTop: 1, borderColor: 'divider' }}
    >
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 2 }}>
        <Link
          href="/api/workshop/archive"
          download
          sx={{ display: 'inline-flex', alignItems: 'center', minHeight: 44 }}
        >
          Export the whole workshop
        </Link>
        <Button variant="text" onClick={() => chooser.current?.click()} disabled={busy} sx={{ px: 0 }}>
          Import an archive …
        </Button>
      </Box>
      {busy && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mt: 1 }}>
          <LinearProgress
            aria-label="How much has come in"
            variant={coming ? 'determinate' : 'indeterminate'}
            value={coming ? (100 * coming.read) / Math.max(1, coming.files) : 0}
            sx={{ flex: 1 }}
          />
          <Typography variant="body2">{coming ? `${coming.read} of ${coming.files} files` : 'On its way'}</Typography>
          <Button variant="outlined" onClick={stop}>
            Stop
          </Button>
        </Box>
      )}
      <Box role="status">
        {told.map((line) => (
          <Typography key={line} variant="body2" sx={{ mt: 0.5 }}>
            {line}
          </Typography>
        ))}
      </Box>
      <FileChoice ref={chooser} accept=".zip,application/zip" testId="archive" onChoose={(file) => void bring(file)} />
    </Box>
  );
}
