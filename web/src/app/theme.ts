import type { GlobalThemeOverrides } from 'naive-ui'

/** The cutting table: a cool mat, steel, one oilskin yellow for where you are, petrol thread for what acts. */
/** Touched with a thumb: nothing that acts is smaller than its tip. */
const touch = matchMedia('(pointer: coarse)').matches
const ink = '#10242b'
const petrol = '#155e68'
const petrolDeep = '#0f4a52'
const steelLine = '#9fb0b6'
const font = "'IBM Plex Sans Variable', 'IBM Plex Sans', system-ui, sans-serif"

export const theme: GlobalThemeOverrides = {
  common: {
    fontFamily: font,
    fontFamilyMono: font,
    fontSize: '16px',
    fontSizeMedium: '16px',
    fontSizeSmall: '16px',
    fontSizeLarge: '17px',
    heightMedium: touch ? '48px' : '40px',
    heightSmall: touch ? '48px' : '36px',
    heightLarge: touch ? '56px' : '44px',
    borderRadius: '3px',
    borderRadiusSmall: '2px',
    primaryColor: petrol,
    primaryColorHover: petrolDeep,
    primaryColorPressed: '#0b3a41',
    primaryColorSuppl: petrol,
    errorColor: '#a8261c',
    errorColorHover: '#8d1e15',
    textColorBase: ink,
    textColor1: ink,
    textColor2: ink,
    textColor3: '#41555c',
    placeholderColor: '#5b6d74',
    borderColor: steelLine,
    inputColor: '#ffffff',
    bodyColor: '#16363d',
    cardColor: '#f6f9f9',
    modalColor: '#f6f9f9',
    popoverColor: '#ffffff',
  },
  Input: { border: `1px solid ${steelLine}`, boxShadowFocus: `0 0 0 3px rgba(240,180,41,.55)` },
  Radio: {
    buttonColorActive: petrol,
    buttonTextColorActive: '#ffffff',
    buttonBorderColor: steelLine,
    buttonBorderColorActive: petrol,
    buttonBoxShadowFocus: '0 0 0 3px rgba(240,180,41,.8)',
  },
  Checkbox: { sizeMedium: '20px', sizeSmall: '20px', border: `1px solid ${steelLine}` },
  Table: {
    thColor: 'transparent',
    tdColor: 'transparent',
    borderColor: '#cbd6da',
    thFontWeight: '600',
    lineHeight: '1.3',
  },
  Progress: { fillColor: petrol, railColor: '#cbd6da' },
  Button: { fontWeight: '550', rippleDuration: '0s' },
  Dialog: { borderRadius: '3px' },
  Message: { fontSize: '16px' },
}
