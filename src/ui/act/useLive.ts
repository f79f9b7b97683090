import { useSyncExternalStore } from "react";

const never = () => () => {};

/**
 * True once the page's script has taken over this place. What is touched before that is heard by nobody: a button that needs the
 * script is disabled until then, so that no touch is lost and the browser sends no form by itself, with a PIN in it.
 */
export function useLive(): boolean {
  return useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
}
