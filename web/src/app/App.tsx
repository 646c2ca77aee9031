import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { Suspense } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { PreferencesProvider } from '../preferences/Preferences';
import { NoticesProvider } from './Notices';
import { laterScreen } from './fetched';
import { Inside } from './Inside';
import { theme } from './theme';

const PlanScreen = laterScreen(() => import('../plan/PlanScreen'));
const GalleryScreen = laterScreen(() => import('../gallery/GalleryScreen'));
const CompareScreen = laterScreen(() => import('../compare/CompareScreen'));
const BenchList = laterScreen(() => import('../bench/BenchList'));
const BoardScreen = laterScreen(() => import('../bench/BoardScreen'));
const BenchScreen = laterScreen(() => import('../bench/BenchScreen'));
const LogbookScreen = laterScreen(() => import('../logbook/LogbookScreen'));
const MandrelsScreen = laterScreen(() => import('../mandrels/MandrelsScreen'));
const ToolsScreen = laterScreen(() => import('../tools/ToolsScreen'));
const PeopleScreen = laterScreen(() => import('../people/PeopleScreen'));
const JoinScreen = laterScreen(() => import('../people/JoinScreen'));
const SizesScreen = laterScreen(() => import('../sizes/SizesScreen'));

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
            <BrowserRouter>
              <Routes>
                <Route
                  path="/join"
                  element={
                    <Suspense>
                      <JoinScreen />
                    </Suspense>
                  }
                />
                <Route element={<Inside />}>
                  <Route path="/plan" element={<PlanScreen />} />
                  <Route path="/plan/:ringId" element={<PlanScreen />} />
                  <Route path="/gallery" element={<GalleryScreen />} />
                  <Route path="/compare" element={<CompareScreen />} />
                  <Route path="/bench" element={<BenchList />} />
                  <Route path="/bench/several/:batchId" element={<BoardScreen />} />
                  <Route path="/bench/:jobId" element={<BenchScreen />} />
                  <Route path="/logbook" element={<LogbookScreen />} />
                  <Route path="/sizes" element={<SizesScreen />} />
                  <Route path="/mandrels" element={<MandrelsScreen />} />
                  <Route path="/tools" element={<ToolsScreen />} />
                  <Route path="/people" element={<PeopleScreen />} />
                  <Route path="*" element={<Navigate to="/plan" replace />} />
                </Route>
              </Routes>
            </BrowserRouter>
          </NoticesProvider>
        </PreferencesProvider>
      </ThemeProvider>
    </QueryClientProvider>
  );
}
