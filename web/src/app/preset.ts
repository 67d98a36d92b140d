import { definePreset } from '@primeuix/themes';
import base from '@primeuix/themes/aura/base';
import checkbox from '@primeuix/themes/aura/checkbox';
import dialog from '@primeuix/themes/aura/dialog';
import select from '@primeuix/themes/aura/select';

const INK = '#1E252B';
const BLUE = '#1B4C8C';
const PANEL = '#F8F9F6';
const LINE = '#B9C0BD';

/** Our own look for the few library parts in use: square, flat, hairlines, engineer's blue. */
export const preset = definePreset(
  { ...base, components: { checkbox, dialog, select } },
  {
    primitive: { borderRadius: { none: '0', xs: '0', sm: '0', md: '0', lg: '0', xl: '0' } },
    semantic: {
      transitionDuration: '0.1s',
      focusRing: { width: '2px', style: 'solid', color: BLUE, offset: '1px' },
      primary: {
        50: '#EEF3F9',
        100: '#D5E1F0',
        200: '#AFC5E2',
        300: '#84A5D0',
        400: '#4E7AB4',
        500: BLUE,
        600: '#17427A',
        700: '#133767',
        800: '#0F2C53',
        900: '#0B2140',
        950: '#07172D',
      },
      colorScheme: {
        light: {
          primary: { color: BLUE, contrastColor: '#FFFFFF', hoverColor: '#17427A', activeColor: '#133767' },
          formField: {
            background: '#FFFFFF',
            borderColor: '#7E8A90',
            hoverBorderColor: INK,
            focusBorderColor: BLUE,
            color: INK,
            shadow: 'none',
            placeholderColor: '#5D686E',
          },
          text: { color: INK, hoverColor: INK, mutedColor: '#4A555B', hoverMutedColor: INK },
          content: { background: PANEL, borderColor: LINE, color: INK },
          overlay: {
            select: { background: '#FFFFFF', borderColor: INK, color: INK, shadow: 'none' },
            modal: { background: PANEL, borderColor: INK, color: INK, shadow: 'none' },
          },
          list: {
            option: {
              focusBackground: '#E3E8E4',
              selectedBackground: '#D5E1F0',
              selectedFocusBackground: '#C4D5EA',
              color: INK,
              selectedColor: INK,
              selectedFocusColor: INK,
            },
          },
        },
      },
    },
  },
);
