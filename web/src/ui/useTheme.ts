import { useSyncExternalStore } from "react";
import { currentTheme, onTheme, type Theme } from "../theme.ts";

/** The theme that is on the page; whoever reads its tokens by hand reads them again when it changes. */
export const useTheme = (): Theme => useSyncExternalStore(onTheme, currentTheme);
