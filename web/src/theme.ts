import '@fontsource-variable/archivo/standard.css'
import 'vuetify/styles/core'
import {
  mdiAlertOutline,
  mdiCheck,
  mdiChevronDown,
  mdiClose,
  mdiUnfoldMoreHorizontal,
} from '@mdi/js'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const wood = {
  treated: '#cfcf9c',
  durable: '#d79c78',
  plain: '#ecd8ae',
  composite: '#b9b3ac',
  sheet: '#dcc9a6',
}

const light = {
  dark: false,
  colors: {
    background: '#e9edee',
    surface: '#fbfcfc',
    'on-background': '#17232a',
    'on-surface': '#17232a',
    primary: '#1b5cb8',
    error: '#b23a0e',
    saw: '#cf4a17',
    proven: '#2f6b45',
    done: '#2f6b45',
    'on-done': '#fbfcfc',
    'done-on-ink': '#8fb99e',
    tape: '#ffc845',
    'on-tape': '#17232a',
    led: '#ffe9b0',
    ink: '#17232a',
    'on-ink': '#fbfcfc',
    'ink-quiet': '#b3c0c6',
    'ink-raised': '#2b3d46',
    'ink-rule': '#7d8d94',
    'lit-on-wood': '#1b5cb8',
    quiet: '#4b5c64',
    rule: '#d3dbdd',
    selected: '#dfe8f7',
    'on-wood': '#17232a',
    ...wood,
  },
  variables: { 'border-opacity': 0.2, 'high-emphasis-opacity': 1, 'medium-emphasis-opacity': 0.85 },
}

const dark = {
  dark: true,
  colors: {
    background: '#10191e',
    surface: '#18242a',
    'on-background': '#e6edef',
    'on-surface': '#e6edef',
    primary: '#7fb0f5',
    error: '#ff9a73',
    saw: '#ff7a45',
    proven: '#7cc79a',
    done: '#2f6b45',
    'on-done': '#fbfcfc',
    'done-on-ink': '#8fb99e',
    tape: '#ffc845',
    'on-tape': '#17232a',
    led: '#ffe9b0',
    ink: '#0a1115',
    'on-ink': '#e6edef',
    'ink-quiet': '#a9b7bd',
    'ink-raised': '#22323a',
    'ink-rule': '#6d7d84',
    'lit-on-wood': '#1b5cb8',
    quiet: '#9fb0b7',
    rule: '#2c3a41',
    selected: '#1f3350',
    'on-wood': '#17232a',
    treated: '#b4b583',
    durable: '#c08762',
    plain: '#cdb88c',
    composite: '#9d9892',
    sheet: '#bda985',
  },
  variables: { 'border-opacity': 0.3, 'high-emphasis-opacity': 1, 'medium-emphasis-opacity': 0.85 },
}

/** What is asked stands above the line, what is typed on it. */
const FIELD = {
  variant: 'underlined',
  density: 'comfortable',
  hideDetails: 'auto',
  color: 'primary',
  active: true,
} as const

export const vuetify = createVuetify({
  theme: { defaultTheme: 'system', themes: { light, dark } },
  icons: {
    defaultSet: 'mdi',
    aliases: {
      ...aliases,
      close: mdiClose,
      complete: mdiCheck,
      dropdown: mdiChevronDown,
      error: mdiAlertOutline,
      unfold: mdiUnfoldMoreHorizontal,
    },
    sets: { mdi },
  },
  defaults: {
    global: { ripple: false },
    VBtn: {
      variant: 'outlined',
      density: 'comfortable',
      style: 'letter-spacing: 0',
    },
    VTextField: FIELD,
    VTextarea: FIELD,
    VSelect: { ...FIELD, menuProps: { offset: 2 } },
    VCheckbox: { density: 'compact', hideDetails: 'auto', color: 'primary' },
    VCard: { elevation: 0, border: true },
    VDialog: { maxWidth: 560, transition: false },
    VMenu: { transition: false, offset: 4 },
    VList: { density: 'compact', elevation: 0 },
  },
})
