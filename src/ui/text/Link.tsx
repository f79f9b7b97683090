import NextLink from "next/link";
import type { ComponentProps } from "react";

/**
 * A link to another page, which is asked for when somebody follows it. The framework's own asks for every page whose link is
 * seen, and asks anew whenever the page is told that something changed: work for the server at the moment when everybody
 * waits for it, and pages that are old before they are shown.
 */
export function Link(props: Omit<ComponentProps<typeof NextLink>, "prefetch">) {
  return <NextLink {...props} prefetch={false} />;
}
