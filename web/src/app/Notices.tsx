import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';

interface Notice {
  text: string;
  undo?: () => void;
}

const Tell = createContext<(notice: Notice) => void>(() => undefined);

/** Short messages at the bottom of the page, with an undo where there is one. */
export function NoticesProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<(Notice & { key: number }) | null>(null);
  const tell = useCallback((next: Notice) => setNotice({ ...next, key: Date.now() }), []);
  const close = useMemo(() => () => setNotice(null), []);
  const undo = notice?.undo;
  return (
    <Tell value={tell}>
      {children}
      <Snackbar
        key={notice?.key}
        open={notice !== null}
        autoHideDuration={undo ? 12000 : 5000}
        onClose={(_, reason) => {
          if (reason !== 'clickaway') close();
        }}
        message={notice?.text}
        action={
          undo && (
            <Button
              color="inherit"
              onClick={() => {
                undo();
                close();
              }}
            >
              Undo
            </Button>
          )
        }
      />
    </Tell>
  );
}

export const useTell = () => useContext(Tell);
