import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, type ReactNode } from 'react';

interface Props {
  title: string;
  onClose: () => void;
  /** What the button that closes it says. */
  closes?: string;
  children: ReactNode;
}

/** Beside the page on a wide screen, in its lower half on a small one: what is set is never covered by where it is set. */
export function Sheet({ title, onClose, closes = 'Done', children }: Props) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const first = box.current?.querySelector<HTMLElement>(
      'input, [role=combobox], [aria-pressed=true], button:not([data-close])',
    );
    (first ?? box.current)?.focus({ preventScroll: true });
  }, [title]);
  // Also where the focus went with a field that isn't asked any more.
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !event.defaultPrevented) onClose();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [onClose]);
  return (
    <Box
      ref={box}
      role="dialog"
      aria-label={title}
      tabIndex={-1}
      sx={{
        bgcolor: 'sheet',
        borderColor: 'primary.main',
        borderStyle: 'solid',
        borderWidth: { xs: '2px 0 0', lg: '0 0 0 2px' },
        position: { xs: 'fixed', lg: 'sticky' },
        top: { lg: 0 },
        bottom: { xs: 'var(--answer, 0px)', lg: 'auto' },
        left: { xs: 0, lg: 'auto' },
        right: 0,
        zIndex: 5,
        width: { xs: '100%', lg: 360 },
        flex: { lg: '0 0 360px' },
        height: { lg: '100dvh' },
        maxHeight: { xs: 'calc(50dvh - var(--answer, 0px) / 2)', lg: 'none' },
        overflowY: 'auto',
        overscrollBehavior: 'contain',
        px: { xs: 2, sm: 3 },
        pb: 3,
        outline: 'none',
        '@media print': { display: 'none' },
      }}
    >
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          justifyContent: 'space-between',
          position: 'sticky',
          top: 0,
          bgcolor: 'sheet',
          zIndex: 2,
          minHeight: 56,
        }}
      >
        <Typography variant="h2" sx={{ fontSize: '1.2rem' }}>
          {title}
        </Typography>
        <Button variant="text" data-close onClick={onClose}>
          {closes}
        </Button>
      </Box>
      {children}
    </Box>
  );
}
