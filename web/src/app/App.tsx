import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { PlanScreen } from '../plan/PlanScreen';
import { PreferencesProvider } from '../preferences/Preferences';
import { Mishap } from './Mishap';
import { NoticesProvider } from './Notices';
import { theme } from './theme';

const queries = new QueryClient({
  // A refusal is an answer: asking again would not change it.
  defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false }, mutations: { retry: false } },
});

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <ThemeProvider theme={theme} defaultMode="system">
        <CssBaseline />
        <PreferencesProvider>
          <NoticesProvider>
            <Mishap>
              <BrowserRouter>
                <Routes>
                  <Route path="/plan" element={<PlanScreen />} />
                  <Route path="/plan/:ringId" element={<PlanScreen />} />
                  <Route path="*" element={<Navigate to="/plan" replace />} />
                </Routes>
              </BrowserRouter>
            </Mishap>
          </NoticesProvider>
        </PreferencesProvider>
      </ThemeProvider>
    </QueryClientProvider>
  );
}
