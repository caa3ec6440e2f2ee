import { createTheme } from '@mui/material/styles'
import { dark, light } from './tokens'

function paletteOf(mode: 'light' | 'dark', tokens: typeof light) {
  const { oxide, brass, moss, frost } = tokens.status
  return {
    mode,
    primary: {
      main: tokens.petrol,
      contrastText: tokens.onPetrol,
      dark: tokens.petrol,
      light: tokens.petrolTint,
    },
    error: { main: oxide.ink, light: oxide.tint },
    warning: { main: brass.ink, light: brass.tint },
    success: { main: moss.ink, light: moss.tint },
    info: { main: frost.ink, light: frost.tint },
    background: { default: tokens.ground, paper: tokens.panel },
    text: { primary: tokens.ink, secondary: tokens.muted, disabled: tokens.edge },
    divider: tokens.line,
    atelier: tokens,
  }
}

const text = (size: number, line: number, weight: number, stretch = '100%') => ({
  fontSize: size,
  lineHeight: `${line}px`,
  fontWeight: weight,
  fontStretch: stretch,
  letterSpacing: 0,
})

const severityOf = { oxide: 'error', brass: 'warning', moss: 'success' } as const
const focus = { outline: '2px solid var(--petrol)', outlineOffset: 2 }

export const theme = createTheme({
  // Who asks the system for less motion gets none.
  motion: { reducedMotion: 'system' },
  cssVariables: { cssVarPrefix: 'at', colorSchemeSelector: 'data-theme' },
  colorSchemes: {
    light: { palette: paletteOf('light', light) },
    dark: { palette: paletteOf('dark', dark) },
  },
  shape: { borderRadius: 4 },
  spacing: 8,
  typography: {
    fontFamily: '"Archivo Variable", system-ui, sans-serif',
    h1: text(24, 32, 640),
    h2: text(14, 24, 640, '93%'),
    h3: text(13, 16, 620),
    body1: text(13, 16, 400),
    body2: text(12, 16, 440, '87.5%'),
    button: { ...text(13, 16, 620), textTransform: 'none' },
    caption: text(11, 16, 520, '87.5%'),
  },
  components: {
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: { root: { '&.Mui-focusVisible': focus } },
    },
    MuiButton: {
      defaultProps: { disableElevation: true, color: 'primary' },
      styleOverrides: {
        root: { minHeight: 32, padding: '7px 14px', minWidth: 48, whiteSpace: 'nowrap' },
        outlined: {
          borderColor: 'var(--edge)',
          color: 'var(--ink)',
          backgroundColor: 'var(--panel)',
          '&:hover': { borderColor: 'var(--ink)', backgroundColor: 'var(--petrol-tint)' },
          // A finger leaves its hover behind: the next choice under it would look chosen.
          '@media (hover: none)': {
            '&:hover': { borderColor: 'var(--edge)', backgroundColor: 'var(--panel)' },
          },
        },
        text: { color: 'var(--petrol)', paddingInline: 8 },
      },
    },
    MuiOutlinedInput: {
      styleOverrides: {
        root: {
          minHeight: 36,
          backgroundColor: 'var(--panel)',
          '& .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--edge)' },
          '&:hover .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--ink)' },
          '&.Mui-focused .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--petrol)', borderWidth: 2 },
          '&.Mui-error .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--oxide)' },
        },
        input: { padding: '9px 10px', height: 'auto', fontSize: 13, lineHeight: '18px' },
        multiline: { padding: 0 },
      },
    },
    MuiNativeSelect: { styleOverrides: { icon: { color: 'var(--muted)' } } },
    MuiFormHelperText: {
      styleOverrides: { root: { ...text(12, 16, 440, '87.5%'), marginInline: 0, marginTop: 4 } },
    },
    MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiDialog: {
      styleOverrides: {
        paper: {
          border: '1px solid var(--line)',
          borderTop: '2px solid var(--ink)',
          borderRadius: 0,
          boxShadow: 'none',
        },
      },
    },
    MuiDialogTitle: { styleOverrides: { root: { ...text(16, 24, 640), padding: '16px 24px 4px' } } },
    MuiDialogContent: { styleOverrides: { root: { padding: '8px 24px 16px' } } },
    MuiDialogActions: { styleOverrides: { root: { padding: '12px 24px 16px' } } },
    MuiMenu: { styleOverrides: { paper: { border: '1px solid var(--edge)', boxShadow: 'none' } } },
    MuiMenuItem: { styleOverrides: { root: { ...text(13, 20, 400), minHeight: 32 } } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          ...text(13, 16, 560),
          textTransform: 'none',
          minHeight: 32,
          padding: '7px 12px',
          borderColor: 'var(--edge)',
          color: 'var(--ink)',
          backgroundColor: 'var(--panel)',
          '&.Mui-selected': {
            backgroundColor: 'var(--petrol)',
            color: 'var(--on-petrol)',
            '&:hover': { backgroundColor: 'var(--petrol)' },
          },
        },
      },
    },
    MuiAlert: {
      styleOverrides: {
        root: {
          ...text(13, 18, 400),
          padding: '8px 12px',
          color: 'var(--ink)',
          backgroundColor: 'var(--panel)',
          border: '1px solid var(--line)',
          borderLeft: '4px solid var(--edge)',
          variants: (['oxide', 'brass', 'moss'] as const).map((tone) => ({
            props: { severity: severityOf[tone] },
            style: {
              color: `var(--${tone}-ink)`,
              backgroundColor: `var(--${tone}-tint)`,
              borderColor: `var(--${tone})`,
            },
          })),
        },
        message: { padding: 0, overflow: 'visible' },
      },
    },
    MuiSkeleton: { defaultProps: { animation: false } },
    MuiSnackbarContent: {
      styleOverrides: {
        root: {
          backgroundColor: 'var(--ink)',
          color: 'var(--ground)',
          borderRadius: 4,
          ...text(13, 20, 440),
        },
      },
    },
  },
})
