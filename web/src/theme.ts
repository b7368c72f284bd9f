import { createVuetify } from "vuetify";
import { aliases, mdi } from "vuetify/iconsets/mdi-svg";

const stored = localStorage.getItem("transitum-theme");

/** Day and night with the tokens of docs/interface.md; components are set up once, here. */
export const vuetify = createVuetify({
  icons: { defaultSet: "mdi", aliases, sets: { mdi } },
  theme: {
    defaultTheme: stored === "night" ? "night" : "day",
    themes: {
      day: {
        dark: false,
        colors: {
          background: "#F5F6F2",
          surface: "#FFFFFF",
          primary: "#0D5C75",
          secondary: "#51636B",
          error: "#C8452B",
          warning: "#B7791F",
          success: "#2F7A57",
          "on-surface": "#16252C",
          "on-background": "#16252C",
        },
      },
      night: {
        dark: true,
        colors: {
          background: "#0F1A1F",
          surface: "#16242A",
          primary: "#5FB6CF",
          secondary: "#9DB0B5",
          error: "#F07F62",
          warning: "#E0AC55",
          success: "#6CBF95",
          "on-surface": "#E4ECEC",
          "on-background": "#E4ECEC",
          "on-primary": "#0F1A1F",
        },
      },
    },
  },
  defaults: {
    global: { ripple: false },
    VBtn: { variant: "outlined", size: "small", rounded: "sm", class: "t-btn" },
    VTextField: { density: "compact", variant: "outlined", hideDetails: "auto" },
    VTextarea: { density: "compact", variant: "outlined", hideDetails: "auto" },
    VSelect: { density: "compact", variant: "outlined", hideDetails: "auto" },
    VAutocomplete: { density: "compact", variant: "outlined", hideDetails: "auto" },
    VCheckbox: { density: "compact", hideDetails: "auto" },
    VCard: { variant: "flat", rounded: "sm" },
    VDialog: { scrim: "#0F1A1F" },
    VSlider: { density: "compact", hideDetails: true, thumbSize: 14, trackSize: 3, color: "primary" },
  },
});
