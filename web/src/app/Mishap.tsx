import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Component, type ReactNode } from 'react';

/** Stands in for a screen that failed to draw. What was typed is kept in the browser, and comes back with the page. */
export class Mishap extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override componentDidCatch(error: Error) {
    // Told to the server's log: somebody who runs the bench should hear of it.
    const body = JSON.stringify({ message: error.message.slice(0, 500), address: location.pathname.slice(0, 200) });
    void fetch('/api/mishaps', { method: 'POST', headers: { 'content-type': 'application/json' }, body }).catch(
      () => undefined,
    );
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <Box role="alert" sx={{ p: 6, maxWidth: 620 }}>
        <Typography variant="h1">This page couldn’t be drawn.</Typography>
        <Typography sx={{ my: 2 }}>
          That is our fault. What you typed is kept here and comes back with the page.
        </Typography>
        <Button variant="contained" onClick={() => location.reload()}>
          Load it again
        </Button>
      </Box>
    );
  }
}
