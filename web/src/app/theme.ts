import { createTheme } from '@mui/material/styles';

declare module '@mui/material/styles' {
  interface Palette {
    mat: string;
    sheet: string;
  }
  interface PaletteOptions {
    mat?: string;
    sheet?: string;
  }
}

const words = '"Atkinson Hyperlegible Next Variable", sans-serif';
export const figures = '"Atkinson Hyperlegible Mono Variable", monospace';

// The bench by day is paper and ink on a grey-green mat; in the evening the mat goes dark. Metal colours are not here:
// they stand for metal only and live with the drawings.
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-light' },
  colorSchemes: {
    light: {
      palette: {
        mat: '#dfe5e2',
        sheet: '#fbfcfb',
        background: { default: '#dfe5e2', paper: '#fbfcfb' },
        text: { primary: '#16211f', secondary: '#465651' },
        primary: { main: '#0f6b63', contrastText: '#ffffff' },
        error: { main: '#a3341f' },
        divider: '#b9c5c0',
      },
    },
    dark: {
      palette: {
        mat: '#141b1a',
        sheet: '#1d2625',
        background: { default: '#141b1a', paper: '#1d2625' },
        text: { primary: '#dfe7e3', secondary: '#a3b3ad' },
        primary: { main: '#63c3b7', contrastText: '#0c1514' },
        error: { main: '#f0937c' },
        divider: '#3a4845',
      },
    },
  },
  typography: {
    fontFamily: words,
    fontSize: 15,
    h1: { fontSize: '1.75rem', fontWeight: 480, lineHeight: 1.5 },
    h2: { fontSize: '1rem', fontWeight: 650, lineHeight: 1.4 },
    button: { textTransform: 'none', fontWeight: 600, fontSize: '1rem' },
    body2: { fontSize: '0.9rem' },
  },
  shape: { borderRadius: 6 },
  components: {
    // Steel is metal too, but the mandrel has to be read in the evening as well.
    MuiCssBaseline: {
      styleOverrides: {
        '@media (prefers-reduced-motion: reduce)': {
          '*, *::before, *::after': { transition: 'none !important', animation: 'none !important' },
        },
        '@media (forced-colors: active)': {
          'svg text': { fill: 'CanvasText !important' },
          '.Mui-selected, [aria-pressed=true], [aria-expanded=true]': { outline: '2px solid Highlight' },
        },
        '@page': { margin: '12mm' },
        // Paper is white and ink is black, whatever the screen's light.
        '@media print': {
          body: { background: 'none !important', color: '#000 !important' },
          ':root, [data-light]': {
            '--mui-palette-text-primary': '#000 !important',
            '--mui-palette-text-secondary': '#333 !important',
            '--mui-palette-primary-main': '#000 !important',
            '--mui-palette-sheet': '#fff !important',
            '--mui-palette-divider': '#777 !important',
          },
        },
        '[data-light]': { '--steel-edge': '#a3afaa', '--steel-light': '#eef2f0', '--steel-ink': '#16211f' },
        "[data-light='dark']": { '--steel-edge': '#4d5b57', '--steel-light': '#7d8c87', '--steel-ink': '#0c1211' },
      },
    },
    // Pictures of a ripple would differ from one moment to the next, and a knuckle doesn't need it.
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: {
        root: { '&.Mui-focusVisible': { outline: '3px solid var(--mui-palette-primary-main)', outlineOffset: 2 } },
      },
    },
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: {
        root: { minHeight: 48, paddingInline: 18 },
        outlined: { borderWidth: 2, '&:hover': { borderWidth: 2 } },
      },
    },
    MuiIconButton: { styleOverrides: { root: { minWidth: 48, minHeight: 48 } } },
    // Choices and entries are underlined like the phrases of the sentence that they belong to.
    MuiToggleButton: {
      styleOverrides: {
        root: {
          minHeight: 48,
          textTransform: 'none',
          fontSize: '1rem',
          fontWeight: 450,
          paddingInline: 14,
          border: 0,
          borderRadius: 0,
          borderBottom: '2.5px solid var(--mui-palette-divider)',
          color: 'var(--mui-palette-text-primary)',
          '&.Mui-selected, &.Mui-selected:hover': {
            backgroundColor: 'transparent',
            fontWeight: 700,
            color: 'var(--mui-palette-primary-main)',
            borderBottomColor: 'var(--mui-palette-primary-main)',
          },
        },
      },
    },
    MuiInputLabel: { defaultProps: { shrink: true } },
    MuiInput: {
      styleOverrides: {
        root: {
          fontSize: '1.2rem',
          minHeight: 44,
          '&::before': { borderBottom: '2.5px solid var(--mui-palette-divider)' },
          '&::after': { borderBottomWidth: 2.5 },
        },
      },
    },
    MuiPopover: {
      styleOverrides: {
        paper: { border: '2px solid var(--mui-palette-primary-main)', boxShadow: 'none', backgroundImage: 'none' },
      },
    },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiMenuItem: { styleOverrides: { root: { minHeight: 48 } } },
    MuiTextField: { defaultProps: { variant: 'standard', fullWidth: true } },
  },
});
