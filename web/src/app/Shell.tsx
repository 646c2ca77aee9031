import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Suspense, useEffect, useRef } from 'react';
import { NavLink, Outlet, useLocation } from 'react-router';
import { useMe } from '../api/people';
import { useUndelivered } from '../bench/useUndelivered';
import { AtHand } from '../mandrels/AtHand';
import { PreferencesMenu } from '../preferences/PreferencesMenu';
import { Listening } from '../tools/Listening';
import { Mishap } from './Mishap';

const SCREENS = [
  { to: '/gallery', name: 'Gallery' },
  { to: '/plan', name: 'Plan' },
  { to: '/bench', name: 'Bench' },
  { to: '/logbook', name: 'Logbook' },
  { to: '/sizes', name: 'Sizes' },
] as const;

/** What every screen stands in: whose bench, the screens, and how figures are read. */
export function Shell() {
  const me = useMe().data;
  const { pathname } = useLocation();
  useUndelivered(pathname);
  const screens = useRef<HTMLElement>(null);
  // Where the names don't all fit, that of the open screen is in sight.
  useEffect(() => {
    screens.current?.querySelector('.active')?.scrollIntoView({ inline: 'center', block: 'nearest' });
  }, [pathname]);
  return (
    <>
      <Box
        component="header"
        sx={{
          display: 'flex',
          alignItems: 'center',
          columnGap: { xs: 1, sm: 2 },
          px: { xs: 2, sm: 3, lg: 4, xl: 7.5 },
          maxWidth: 1600,
          mx: 'auto',
          minHeight: 56,
          '@media print': { display: 'none' },
        }}
      >
        <Typography
          component="h1"
          // On a phone the screens' names need the room; the name over the door is still read out.
          sx={{
            fontWeight: 750,
            fontSize: '1.1rem',
            whiteSpace: 'nowrap',
            '@media (max-width: 480px)': {
              position: 'absolute',
              width: '1px',
              height: '1px',
              overflow: 'hidden',
              clipPath: 'inset(50%)',
            },
          }}
        >
          Pliant Coil
        </Typography>
        <Typography
          component={NavLink}
          to="/people"
          variant="body2"
          sx={{
            display: { xs: 'none', md: 'block' },
            py: 1.5,
            color: 'text.secondary',
            textDecorationColor: 'var(--mui-palette-divider)',
            textUnderlineOffset: 4,
            '&.active': { color: 'primary.main' },
          }}
        >
          {me?.here.name}
          {me?.name && `, ${me.name}`}
        </Typography>
        <Box
          ref={screens}
          component="nav"
          aria-label="Screens"
          // On a phone the names that don't fit are a swipe away; preferences stay in sight.
          sx={{
            display: 'flex',
            columnGap: { xs: 0.5, sm: 1 },
            flex: 1,
            minWidth: 0,
            overflowX: 'auto',
            scrollbarWidth: 'none',
          }}
        >
          {SCREENS.map(({ to, name }) => (
            <Box
              key={to}
              component={NavLink}
              to={to}
              sx={{
                minHeight: 48,
                px: { xs: 0.75, sm: 1 },
                fontSize: { xs: '0.95rem', sm: 'inherit' },
                display: 'flex',
                alignItems: 'center',
                fontWeight: 600,
                color: 'text.primary',
                textDecoration: 'none',
                borderBottom: 3,
                borderColor: 'transparent',
                '&.active': { borderColor: 'primary.main', color: 'primary.main' },
                '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main', outlineOffset: -3 },
                // A system's own colours paint a transparent border too: only the open screen is to be underlined.
                '@media (forced-colors: active)': { borderColor: 'Canvas', '&.active': { borderColor: 'Highlight' } },
              }}
            >
              {name}
            </Box>
          ))}
        </Box>
        <PreferencesMenu />
        <Listening />
        <AtHand />
      </Box>
      {/* A screen that failed doesn't take the others with it: going elsewhere begins anew. */}
      <Mishap key={pathname.split('/')[1]}>
        <Suspense fallback={<Typography sx={{ p: 4 }}>The screen is on its way.</Typography>}>
          <Outlet />
        </Suspense>
      </Mishap>
    </>
  );
}
