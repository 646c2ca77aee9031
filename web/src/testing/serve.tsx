import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import type { ReactElement } from 'react';
import { MemoryRouter } from 'react-router';
import { vi } from 'vitest';
import { api } from '../api/client';
import { PreferencesProvider } from '../preferences/Preferences';

export interface Asked {
  path: string;
  query: URLSearchParams;
  body: unknown;
}

interface Init {
  params?: { path?: Record<string, string>; query?: Record<string, string> };
  body?: unknown;
}

const NONE = { errors: [{ field: '', reason: 'there is none', accepted: '' }] };

/** A server that answers by method and path, what it doesn't know with a refusal; and what it was asked, who is here aside. */
export function serving(answers: Record<string, unknown>): Asked[] {
  const asked: Asked[] = [];
  for (const method of ['GET', 'POST', 'PUT', 'DELETE'] as const) {
    const answered = (template: string, { params, body }: Init = {}) => {
      const path = template.replace(/\{(\w+)\}/g, (_, name: string) => params?.path?.[name] ?? '');
      const query = new URLSearchParams(params?.query);
      if (path !== '/api/me') asked.push({ path, query, body });
      const known = answers[`${method} ${path}`];
      const data: unknown = typeof known === 'function' ? (known as (query: URLSearchParams) => unknown)(query) : known;
      return Promise.resolve(
        data === undefined
          ? { error: NONE, response: new Response(null, { status: 404 }) }
          : { data, response: new Response(null, { status: 200 }) },
      );
    };
    vi.spyOn(api, method).mockImplementation(answered as never);
  }
  return asked;
}

/** Draws a part of a page with a cache and preferences of its own. */
export const drawn = (part: ReactElement) =>
  render(
    <MemoryRouter>
      <QueryClientProvider client={new QueryClient()}>
        <PreferencesProvider>{part}</PreferencesProvider>
      </QueryClientProvider>
    </MemoryRouter>,
  );
