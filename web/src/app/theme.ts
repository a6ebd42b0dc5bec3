/** Mantine through a theme of our own: flat, thin lines, marking-out blue. */
import { Button, createTheme, type MantineColorsTuple } from '@mantine/core';

const marking: MantineColorsTuple = [
  '#eef3f9',
  '#dce5f0',
  '#b9cce3',
  '#8fb6ee',
  '#5f8cc6',
  '#3c69a6',
  '#1e4a86',
  '#1a4177',
  '#153764',
  '#0f2a4d',
];

export const theme = createTheme({
  fontFamily: '"Archivo Variable", system-ui, sans-serif',
  colors: { marking },
  primaryColor: 'marking',
  primaryShade: { light: 6, dark: 3 },
  autoContrast: true,
  defaultRadius: 4,
  cursorType: 'pointer',
  respectReducedMotion: true,
  components: {
    Button: Button.extend({
      defaultProps: { size: 'md' },
      styles: { root: { fontWeight: 650, minHeight: 44 } },
      vars: (_theme, props) => ({
        root:
          props.variant === 'default'
            ? {}
            : { '--button-bg': 'var(--blue)', '--button-hover': 'var(--blue)', '--button-color': 'var(--on-blue)' },
      }),
    }),
    Modal: {
      defaultProps: {
        centered: true,
        shadow: 'none',
        transitionProps: { duration: 150 },
        overlayProps: { backgroundOpacity: 0.45 },
      },
    },
    TextInput: { defaultProps: { size: 'md' } },
    PasswordInput: { defaultProps: { size: 'md' } },
    Select: { defaultProps: { size: 'md' } },
    NumberInput: { defaultProps: { size: 'md' } },
    Checkbox: { defaultProps: { size: 'md' } },
    NativeSelect: { defaultProps: { size: 'md' } },
    Textarea: { defaultProps: { size: 'md' } },
  },
});
