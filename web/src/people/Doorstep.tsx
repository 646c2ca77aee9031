import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useEffect, type ReactNode } from 'react';

/** What somebody sees who hasn't come in yet. */
export function Doorstep({ title, children }: { title: string; children: ReactNode }) {
  useEffect(() => {
    document.title = `${title} · Pliant Coil`;
  }, [title]);
  return (
    <Box
      component="main"
      sx={{
        minHeight: '100dvh',
        display: 'grid',
        gridTemplateRows: '1fr auto 2fr',
        bgcolor: 'sheet',
        borderLeft: { xs: 0, sm: '14px solid' },
        borderColor: 'primary.main',
        px: { xs: 3, sm: '10vw' },
      }}
    >
      <Typography sx={{ fontWeight: 750, fontSize: '1.1rem', pt: 3 }}>Pliant Coil</Typography>
      <Box sx={{ maxWidth: 460, py: 4 }}>
        <Typography component="h1" variant="h1" sx={{ mb: 2 }}>
          {title}
        </Typography>
        {children}
      </Box>
    </Box>
  );
}
