import 'vuetify/styles'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

/** The sample table's colours: neutral chrome, one accent, and words' colours for done, snag and error. */
export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    defaultTheme: 'table',
    themes: {
      table: {
        dark: false,
        colors: {
          background: '#f1f0ee',
          surface: '#faf9f7',
          primary: '#6b2d5c',
          success: '#4d6b3c',
          warning: '#8a5508',
          error: '#9a3324',
          'on-background': '#1e1d1b',
          'on-surface': '#1e1d1b',
        },
      },
    },
  },
  defaults: {
    global: { ripple: false },
    VBtn: { variant: 'outlined', density: 'compact', rounded: 'sm', class: 'text-none', elevation: 0 },
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto', rounded: 'sm' },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: true, rounded: 'sm' },
    VDialog: { maxWidth: 440 },
    VCard: { elevation: 0, border: true, rounded: 'sm' },
    VTooltip: { openDelay: 400 },
  },
})
