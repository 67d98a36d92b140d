import { definePreset } from '@primeuix/themes';
import base from '@primeuix/themes/aura/base';
import button from '@primeuix/themes/aura/button';
import checkbox from '@primeuix/themes/aura/checkbox';
import datatable from '@primeuix/themes/aura/datatable';
import datepicker from '@primeuix/themes/aura/datepicker';
import dialog from '@primeuix/themes/aura/dialog';
import drawer from '@primeuix/themes/aura/drawer';
import fileupload from '@primeuix/themes/aura/fileupload';
import inputtext from '@primeuix/themes/aura/inputtext';
import message from '@primeuix/themes/aura/message';
import progressbar from '@primeuix/themes/aura/progressbar';
import radiobutton from '@primeuix/themes/aura/radiobutton';
import select from '@primeuix/themes/aura/select';
import slider from '@primeuix/themes/aura/slider';
import textarea from '@primeuix/themes/aura/textarea';
import { PALETTE } from './palette';

const { ground, panel, paper, sunk, ink, soft, line, edge, faint, blue, wash, yellow, red, blush } = PALETTE;

/** A button as a stamped plate: flat, an edge, ink. Its variants by severity: `warn` is the one next thing. */
const plate = (background: string, border: string, color: string) => ({
  background,
  hoverBackground: background,
  activeBackground: sunk,
  borderColor: border,
  hoverBorderColor: ink,
  activeBorderColor: ink,
  color,
  hoverColor: color,
  activeColor: ink,
  focusRing: { color: blue, shadow: 'none' },
});
/** A line that must be seen: its words on a wash, its kind as a bar. */
const told = (background: string, color: string) => ({
  background,
  borderColor: color,
  color: ink,
  shadow: 'none',
  closeButton: { hoverBackground: background, focusRing: { color: blue, shadow: 'none' } },
});

const own = {
  button: {
    root: { paddingX: '14px', paddingY: '0', gap: '8px', label: { fontWeight: '600' } },
    colorScheme: {
      light: {
        root: { primary: plate(panel, edge, ink), warn: plate(yellow, ink, ink) },
        text: { primary: { color: blue, hoverBackground: wash, activeBackground: wash } },
      },
    },
  },
  message: {
    root: { borderWidth: '0 0 0 6px' },
    text: { fontSize: '16px', fontWeight: '600' },
    content: { padding: '8px 12px' },
    colorScheme: { light: { error: told(blush, red), warn: told(panel, ink), info: told(wash, blue) } },
  },
  datatable: {
    headerCell: { background: sunk, padding: '6px 10px', sm: { padding: '6px 10px' } },
    bodyCell: { padding: '5px 10px', sm: { padding: '4px 10px' } },
  },
  datepicker: {
    panel: { shadow: 'none', borderColor: ink },
    date: { borderRadius: '0' },
    month: { borderRadius: '0' },
    year: { borderRadius: '0' },
  },
  slider: {
    track: { background: line, size: '4px' },
    handle: {
      width: '22px',
      height: '22px',
      borderRadius: '0',
      background: ink,
      hoverBackground: ink,
      content: { borderRadius: '0', width: '14px', height: '14px', shadow: 'none', hoverBackground: paper },
    },
    colorScheme: { light: { handle: { content: { background: paper } } } },
  },
  progressbar: { root: { background: sunk, height: '18px' }, value: { background: blue }, label: { color: paper, fontSize: '13px' } },
  checkbox: { root: { width: '22px', height: '22px' } },
};

/** Our own look for the library's parts: square, flat, hairlines, engineer's blue. */
export const preset = definePreset(
  {
    ...base,
    components: {
      button,
      checkbox,
      datatable,
      datepicker,
      dialog,
      drawer,
      fileupload,
      inputtext,
      message,
      progressbar,
      radiobutton,
      select,
      slider,
      textarea,
    },
  },
  {
    primitive: { borderRadius: { none: '0', xs: '0', sm: '0', md: '0', lg: '0', xl: '0' }, shop: PALETTE },
    semantic: {
      transitionDuration: '0.1s',
      focusRing: { width: '2px', style: 'solid', color: blue, offset: '1px' },
      primary: {
        50: '#EEF3F9',
        100: '#D5E1F0',
        200: '#AFC5E2',
        300: '#84A5D0',
        400: '#4E7AB4',
        500: blue,
        600: '#17427A',
        700: '#133767',
        800: '#0F2C53',
        900: '#0B2140',
        950: '#07172D',
      },
      formField: { paddingX: '10px', paddingY: '6px' },
      colorScheme: {
        light: {
          primary: { color: blue, contrastColor: paper, hoverColor: '#17427A', activeColor: '#133767' },
          formField: {
            background: paper,
            disabledBackground: sunk,
            borderColor: edge,
            hoverBorderColor: ink,
            focusBorderColor: blue,
            invalidBorderColor: red,
            color: ink,
            disabledColor: faint,
            shadow: 'none',
            placeholderColor: '#5D686E',
          },
          text: { color: ink, hoverColor: ink, mutedColor: soft, hoverMutedColor: ink },
          content: { background: panel, hoverBackground: ground, borderColor: line, color: ink, hoverColor: ink },
          overlay: {
            select: { background: paper, borderColor: ink, color: ink, shadow: 'none' },
            modal: { background: panel, borderColor: ink, color: ink, shadow: 'none' },
          },
          list: {
            option: {
              focusBackground: sunk,
              selectedBackground: '#D5E1F0',
              selectedFocusBackground: '#C4D5EA',
              color: ink,
              selectedColor: ink,
              selectedFocusColor: ink,
            },
          },
        },
      },
    },
    components: own,
  },
);
