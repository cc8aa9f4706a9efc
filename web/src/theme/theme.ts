/** The look, in one place: a chalk ground, graphite text, copper for what the hand does. */

import { Button, type CSSVariablesResolver, createTheme, type MantineColorsTuple } from "@mantine/core";

const copper: MantineColorsTuple = [
  "#FBEFE8",
  "#F3DCCF",
  "#E9BDA3",
  "#E39E76",
  "#E08A56",
  "#C96F3C",
  "#A34E24",
  "#A34E24",
  "#8A401C",
  "#6F3315",
];

export const LIGHT = {
  ground: "#F4F1EA",
  panel: "#FFFFFF",
  rule: "#D9D3C6",
  edge: "#7C7669",
  text: "#1F2428",
  quiet: "#4A5156",
  copper: "#A34E24",
  "on-copper": "#FFFFFF",
  teal: "#0A5B50",
  ochre: "#6A4A00",
  slate: "#445260",
  plum: "#763879",
  vermilion: "#972515",
  grey: "#4A5156",
  ink: "#1F2428",
  "healthy-band": "#DDE7DF",
  contact: "#1F2428",
  "on-contact": "#F4F1EA",
  alarm: "#A3200E",
  "on-alarm": "#FFFFFF",
};

export const DARK: typeof LIGHT = {
  ground: "#15181B",
  panel: "#1E2327",
  rule: "#343B41",
  edge: "#7D868E",
  text: "#ECE8DF",
  quiet: "#A6AEB5",
  copper: "#E08A56",
  "on-copper": "#15181B",
  teal: "#5CBEAD",
  ochre: "#DDA83C",
  slate: "#A6B6C7",
  plum: "#D899DB",
  vermilion: "#FF8E79",
  grey: "#A6AEB5",
  ink: "#ECE8DF",
  "healthy-band": "#1F3531",
  contact: "#ECE8DF",
  "on-contact": "#15181B",
  alarm: "#8E1B0C",
  "on-alarm": "#FFFFFF",
};

/** Insulation colours of fixed conductors. They stand beside a letter, never alone. */
const INSULATION = {
  black: "#26292C",
  red: "#B3261E",
  blue: "#2B62B8",
  white: "#F7F5EF",
  green: "#1E7D3C",
  "green-yellow": "#5E9B1F",
  brown: "#7A4A2B",
  grey: "#84898E",
  bare: "#C08A5A",
};

const named = (prefix: string, values: Record<string, string>) =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [`--${prefix}-${name}`, value]));

const mantine = (tokens: typeof LIGHT) => ({
  ...named("ep", tokens),
  "--mantine-color-body": tokens.ground,
  "--mantine-color-text": tokens.text,
  "--mantine-color-dimmed": tokens.quiet,
  "--mantine-color-default": tokens.panel,
  "--mantine-color-default-border": tokens.edge,
  "--mantine-color-default-color": tokens.text,
  "--mantine-color-error": tokens.vermilion,
  "--mantine-color-placeholder": tokens.quiet,
  "--mantine-color-disabled": tokens.rule,
  "--mantine-color-disabled-color": tokens.quiet,
  "--mantine-primary-color-filled": tokens.copper,
  "--mantine-primary-color-contrast": tokens["on-copper"],
});

export const cssVariables: CSSVariablesResolver = () => ({
  variables: named("ep-insulation", INSULATION),
  light: mantine(LIGHT),
  dark: mantine(DARK),
});

const FIELD = { minHeight: 48, fontSize: 17, background: "var(--ep-panel)", borderColor: "var(--ep-edge)" };

const HINT = { fontSize: 14, color: "var(--ep-quiet)" };
const tall = {
  styles: { input: FIELD, label: { marginBottom: 4 }, description: HINT, error: { fontSize: 15 } },
};

const COPPER_TEXT = { "--button-color": "var(--ep-copper)", "--button-bd": "1px solid var(--ep-copper)" };

const BUTTON_COLOURS: Record<string, Record<string, string>> = {
  filled: {
    "--button-bg": "var(--ep-copper)",
    "--button-hover": "var(--ep-copper)",
    "--button-color": "var(--ep-on-copper)",
  },
  outline: COPPER_TEXT,
  subtle: { "--button-color": "var(--ep-copper)", "--button-hover": "var(--ep-panel)" },
};

export const theme = createTheme({
  colors: { copper },
  primaryColor: "copper",
  primaryShade: { light: 6, dark: 4 },
  autoContrast: true,
  respectReducedMotion: true,
  fontFamily: '"Atkinson Hyperlegible Next Variable", sans-serif',
  fontFamilyMonospace: '"Atkinson Hyperlegible Mono Variable", monospace',
  defaultRadius: 4,
  components: {
    Button: Button.extend({
      defaultProps: { size: "md" },
      styles: { root: { minHeight: 48 } },
      vars: (_theme, { variant = "filled" }) => ({ root: BUTTON_COLOURS[variant] ?? {} }),
    }),
    TextInput: tall,
    PasswordInput: {
      styles: {
        input: { ...FIELD, fontSize: undefined },
        innerInput: { minHeight: 48, fontSize: 17 },
        visibilityToggle: { width: 48, height: 48 },
        label: { marginBottom: 4 },
        description: { fontSize: 14 },
      },
    },
    NativeSelect: tall,
    Textarea: tall,
    SegmentedControl: {
      defaultProps: { fullWidth: true, transitionDuration: 0 },
      styles: {
        root: { background: "var(--ep-ground)", border: "1px solid var(--ep-edge)" },
        label: {
          minHeight: 48,
          display: "grid",
          placeItems: "center",
          fontSize: 16,
          color: "var(--ep-text)",
        },
        indicator: { border: "2px solid var(--ep-text)", background: "var(--ep-panel)", boxShadow: "none" },
      },
    },
    Modal: {
      defaultProps: {
        centered: true,
        transitionProps: { duration: 0 },
        closeButtonProps: { "aria-label": "Close", size: 48 },
      },
      styles: { title: { fontSize: 19, fontWeight: 700 } },
    },
  },
});
