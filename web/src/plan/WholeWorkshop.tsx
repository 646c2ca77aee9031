import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { useRingChanges } from '../api/queries';
import { FileChoice } from '../ui/FileChoice';

/** All rings of the workshop as open files, out and in. */
export function WholeWorkshop() {
  const { bringIn } = useRingChanges();
  const chooser = useRef<HTMLInputElement>(null);
  const [told, setTold] = useState<string[]>([]);
  const take = (archive: File) =>
    bringIn.mutate(archive, {
      onSuccess: ({ rings, refused }) =>
        setTold([
          rings === 1 ? 'One ring came in.' : `${rings} rings came in.`,
          ...refused.map((file) => `${file.name} didn’t: ${file.reason}`),
        ]),
      onError: (error) => setTold([error.message]),
    });
  return (
    <Box component="section" aria-label="All rings" sx={{ mt: 3, pt: 2, borderTop: 1, borderColor: 'divider' }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 2 }}>
        <Link
          href="/api/workshop/archive"
          download
          sx={{ display: 'inline-flex', alignItems: 'center', minHeight: 44 }}
        >
          Write all rings into one archive
        </Link>
        <Button variant="text" onClick={() => chooser.current?.click()} disabled={bringIn.isPending} sx={{ px: 0 }}>
          Bring in an archive …
        </Button>
      </Box>
      <Box role="status">
        {told.map((line) => (
          <Typography key={line} variant="body2" sx={{ mt: 0.5 }}>
            {line}
          </Typography>
        ))}
      </Box>
      <FileChoice ref={chooser} accept=".zip,application/zip" testId="archive" onChoose={take} />
    </Box>
  );
}
