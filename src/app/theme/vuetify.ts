import { createVuetify } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';

const compact = { density: 'compact' as const };

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    defaultTheme: 'evening',
    themes: {
      evening: {
        dark: true,
        colors: {
          background: '#181818',
          surface: '#202020',
          primary: '#d8a84a',
          'on-primary': '#1b1508',
          secondary: '#86b6ef',
          error: '#ff7b6e',
          info: '#86b6ef',
        },
      },
      daylight: {
        dark: false,
        colors: {
          background: '#dcdcdc',
          surface: '#ededed',
          primary: '#7a5608',
          'on-primary': '#ffffff',
          secondary: '#1f5ea8',
          error: '#b3261e',
          info: '#1f5ea8',
        },
      },
    },
  },
  defaults: {
    global: { ripple: false },
    VBtn: { ...compact, variant: 'outlined', rounded: '3', elevation: 0 },
    VTextField: { ...compact, variant: 'outlined', hideDetails: 'auto' },
    VSelect: { ...compact, variant: 'outlined', hideDetails: 'auto' },
    VCheckbox: { ...compact, hideDetails: true },
    VSwitch: { ...compact, hideDetails: true, color: 'primary' },
    VCard: { rounded: '3', elevation: 0, variant: 'outlined' },
    VDialog: { maxWidth: 520, scrim: '#000' },
    VList: { ...compact, rounded: '3', elevation: 0 },
    VTooltip: { openDelay: 500, location: 'bottom', eager: false },
    VMenu: { offset: 4 },
    VProgressLinear: { rounded: '0' },
  },
});
