import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import { createContext, useCallback, useContext, useState, type ReactNode } from 'react';

interface Notice {
  text: string;
  /** Takes back what is told. */
  undo?: () => void;
}

const Tell = createContext<(notice: Notice) => void>(() => undefined);

/** Short messages at that end of the page where the answer isn’t: below on a wide screen, above on a narrow one. */
export function NoticesProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<(Notice & { key: number }) | null>(null);
  const tell = useCallback((next: Notice) => setNotice({ ...next, key: Date.now() }), []);
  return (
    <Tell value={tell}>
      {children}
      <Snackbar
        key={notice?.key}
        open={notice !== null}
        autoHideDuration={5000}
        sx={{ top: { xs: 16, lg: 'auto' }, bottom: { xs: 'auto', lg: 24 } }}
        onClose={(_, reason) => {
          if (reason !== 'clickaway') setNotice(null);
        }}
        message={notice?.text}
        action={
          notice?.undo && (
            <Button
              color="inherit"
              onClick={() => {
                notice.undo?.();
                setNotice(null);
              }}
            >
              Take it back
            </Button>
          )
        }
      />
    </Tell>
  );
}

export const useTell = () => useContext(Tell);
