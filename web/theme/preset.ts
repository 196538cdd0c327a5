import { definePreset } from '@primeuix/themes';
import Aura from '@primeuix/themes/aura';

const damson = {
  50: '#f8f1f5',
  100: '#f0e2ea',
  200: '#dfc3d4',
  300: '#c89ab6',
  400: '#a4658c',
  500: '#7d3d69',
  600: '#5e2750',
  700: '#4f2043',
  800: '#3f1935',
  900: '#301328',
  950: '#200c1a',
};
const paper = {
  0: '#fffdf7',
  50: '#f6f1e6',
  100: '#f1eadb',
  200: '#eae2d2',
  300: '#d8cebc',
  400: '#b9ad9c',
  500: '#8c8188',
  600: '#665b6c',
  700: '#4c4252',
  800: '#372d3d',
  900: '#261c2c',
  950: '#1a121f',
};

/** PrimeVue's components in the project's own paper, ink and fruit. */
export const jamPan = definePreset(Aura, {
  primitive: { borderRadius: { none: '0', xs: '4px', sm: '6px', md: '7px', lg: '9px', xl: '12px' } },
  semantic: {
    primary: damson,
    transitionDuration: '0.1s',
    focusRing: { width: '2.5px', style: 'solid', color: '#33568f', offset: '2px' },
    formField: { paddingX: '0.6rem', paddingY: '0.32rem', borderRadius: '7px', shadow: 'none' },
    overlay: {
      select: { shadow: '0 0 0 1px #261c2c' },
      navigation: { shadow: '0 0 0 1px #261c2c' },
      popover: { shadow: '0 0 0 1px #261c2c' },
      modal: { shadow: '0 0 0 1.5px #261c2c' },
    },
    colorScheme: {
      light: {
        surface: paper,
        primary: {
          color: '#5e2750',
          contrastColor: '#fffdf7',
          hoverColor: '#4b1d40',
          activeColor: '#3f1935',
        },
        highlight: {
          background: '#f0e2ea',
          focusBackground: '#e6d0dc',
          color: '#5e2750',
          focusColor: '#3f1935',
        },
        text: { color: '#261c2c', mutedColor: '#665b6c' },
        content: { background: '#fffdf7', borderColor: '#d8cebc', color: '#261c2c' },
        formField: { background: '#fffdf7', borderColor: '#b9ad9c', color: '#261c2c' },
      },
    },
  },
});
