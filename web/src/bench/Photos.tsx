import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRef } from 'react';
import { usePhotoChanges, usePhotos } from '../api/photos';
import { useMayChange } from '../api/people';
import { useTell } from '../app/Notices';
import { FileChoice } from '../ui/FileChoice';

interface Props {
  job: string;
  /** The step that is at hand. */
  task: string;
}

/** Photos of a ring: taken here or chosen, kept with it. */
export function Photos({ job, task }: Props) {
  const photos = usePhotos(job).data ?? [];
  const { add, remove, restore } = usePhotoChanges(job);
  const chooser = useRef<HTMLInputElement>(null);
  const tell = useTell();
  const mayChange = useMayChange();
  const put = (photo: File) =>
    add.mutate({ photo, task, key: crypto.randomUUID() }, { onError: (error) => tell({ text: error.message }) });
  const away = (id: string) =>
    remove.mutate(id, {
      onSuccess: () => tell({ text: 'The photo is deleted.', undo: () => restore.mutate(id) }),
    });
  if (!mayChange && photos.length === 0) return null;
  return (
    <Box component="section" aria-label="Photos" sx={{ mt: 3 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'end' }}>
        {photos.map((photo, k) => (
          <Box key={photo.id} sx={{ display: 'grid', justifyItems: 'start' }}>
            <a href={`/api/photos/${photo.id}`} target="_blank" rel="noreferrer">
              <Box
                component="img"
                src={`/api/photos/${photo.id}`}
                alt={`Photo ${k + 1}${photo.task ? `, at “${photo.task}”` : ''}`}
                loading="lazy"
                width={photo.width}
                height={photo.height}
                sx={{ height: 120, width: 'auto', maxWidth: 220, objectFit: 'cover', display: 'block' }}
              />
            </a>
            {mayChange && (
              <Button size="small" variant="text" onClick={() => away(photo.id)} aria-label={`Delete photo ${k + 1}`}>
                Delete
              </Button>
            )}
          </Box>
        ))}
        {mayChange && (
          <Button variant="outlined" onClick={() => chooser.current?.click()} disabled={add.isPending}>
            {add.isPending ? 'It is being kept …' : 'Add a photo'}
          </Button>
        )}
      </Box>
      {mayChange && photos.length === 0 && (
        <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
          Where it was taken and with what isn’t kept.
        </Typography>
      )}
      <FileChoice ref={chooser} accept="image/jpeg,image/png,image/webp" testId="photo" onChoose={put} />
    </Box>
  );
}
