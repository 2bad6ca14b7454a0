import { createSystem, defaultBaseConfig, defineConfig } from "@chakra-ui/react";
import {
  animationStyles,
  breakpoints,
  buttonRecipe,
  cssVarsPrefix,
  cssVarsRoot,
  dialogSlotRecipe,
  globalCss,
  headingRecipe,
  inputRecipe,
  keyframes,
  layerStyles,
  menuSlotRecipe,
  nativeSelectSlotRecipe,
  progressSlotRecipe,
  semanticTokens,
  spinnerRecipe,
  tableSlotRecipe,
  tabsSlotRecipe,
  textStyles,
  tokens,
} from "@chakra-ui/react/theme";

/** Two values of one colour: on paper (bright light) and on layout dye (dark). */
const pair = (paper: string, dye: string) => ({ value: { base: paper, _dark: dye } });

/** Chakra's theme with the recipes of what is used here: all of them would be a sixth of the first load. */
const used = defineConfig({
  preflight: true,
  cssVarsPrefix,
  cssVarsRoot,
  globalCss,
  theme: {
    breakpoints,
    keyframes,
    tokens,
    semanticTokens,
    textStyles,
    layerStyles,
    animationStyles,
    recipes: { button: buttonRecipe, heading: headingRecipe, input: inputRecipe, spinner: spinnerRecipe },
    slotRecipes: {
      dialog: dialogSlotRecipe,
      menu: menuSlotRecipe,
      nativeSelect: nativeSelectSlotRecipe,
      progress: progressSlotRecipe,
      table: tableSlotRecipe,
      tabs: tabsSlotRecipe,
    },
  },
});

const config = defineConfig({
  globalCss: {
    "html, body, #root": { height: "100%" },
    html: { background: "bench" },
    body: { background: "bench", color: "ink", fontSize: "15px", lineHeight: "1.35" },
    "*:focus-visible": { outline: "2px solid var(--chakra-colors-chalk)", outlineOffset: "1px" },
    "svg text": { fontFamily: "'IBM Plex Sans', sans-serif", fontVariantNumeric: "tabular-nums" },
    "*": { _motionReduce: { transition: "none !important", animation: "none !important" } },
  },
  theme: {
    tokens: {
      fonts: {
        body: { value: "'IBM Plex Sans', sans-serif" },
        heading: { value: "'Barlow Condensed', sans-serif" },
      },
    },
    semanticTokens: {
      colors: {
        bench: pair("#e4e0d4", "#0c1533"),
        panel: pair("#f6f3ea", "#131f49"),
        sheet: pair("#fffefa", "#17275f"),
        ink: pair("#1b2233", "#edf1ff"),
        faint: pair("#555d70", "#b3bfe4"),
        rule: pair("#c4bdab", "#34478c"),
        edge: pair("#8a826d", "#7488cf"),
        added: pair("#0b6a55", "#74e3c1"),
        removed: pair("#a3371f", "#ffa183"),
        touch: pair("#86206c", "#ff9ad8"),
        placed: pair("#7a5806", "#e3c777"),
        was: pair("#3a6078", "#8fc6e4"),
        chalk: pair("#1d3f98", "#f6d06f"),
        onchalk: pair("#ffffff", "#16214b"),
      },
    },
  },
});

export const system = createSystem(defaultBaseConfig, used, config);

/** A semantic colour for SVG, where Chakra's props do not reach. */
export const paint = (
  name:
    | "bench"
    | "panel"
    | "sheet"
    | "ink"
    | "faint"
    | "rule"
    | "added"
    | "removed"
    | "touch"
    | "placed"
    | "was"
    | "chalk"
    | "onchalk",
): string => `var(--chakra-colors-${name})`;
