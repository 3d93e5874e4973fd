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
const madder: MantineColorsTuple = [
  '#fbeeea',
  '#f3d8d1',
  '#e8b3a7',
  '#dc8b7a',
  '#d26a55',
  '#c0543f',
  '#b04636',
  '#a63d2f',
  '#8d3226',
  '#73281e',
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
  colors: { ink, madder, bottle },
  primaryColor: 'madder',
  primaryShade: { light: 7, dark: 3 },
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
