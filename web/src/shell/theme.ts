import { Button, createTheme, Drawer, Modal, type MantineColorsTuple } from '@mantine/core';

const ink: MantineColorsTuple = [
  '#f5f1e8',
  '#e9e3d4',
  '#d8d1c0',
  '#bdb5a2',
  '#9a9280',
  '#7a7363',
  '#5d574a',
  '#433f35',
  '#2d2a23',
  '#1e1c17',
];
const bottle: MantineColorsTuple = [
  '#eaf5f0',
  '#d2e7dd',
  '#a8d0bd',
  '#7fc8a9',
  '#5aa586',
  '#43896b',
  '#37785d',
  '#2f6b52',
  '#255742',
  '#1a4433',
];

export const theme = createTheme({
  colors: { ink, bottle },
  primaryColor: 'ink',
  primaryShade: { light: 9, dark: 1 },
  fontFamily: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  fontFamilyMonospace: "'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace",
  headings: { fontWeight: '700' },
  defaultRadius: 4,
  cursorType: 'pointer',
  focusRing: 'auto',
  components: {
    Drawer: Drawer.extend({ defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } }),
    Modal: Modal.extend({ defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } }),
    Button: Button.extend({ defaultProps: { variant: 'filled' } }),
  },
});
