"use client";

import { startTransition, useActionState } from "react";
import { signIn } from "./actions";
import { Field } from "@/ui/act/Field";

/**
 * The name and password form. React empties a form once the action it was given has answered, also of what was typed
 * while that answer was on its way; sent from here instead, what is typed stays. Without script the action is posted.
 */
export function SignInForm() {
  const [answer, submit, pending] = useActionState(signIn, null);
  const fault = pending ? null : answer;
  return (
    <form
      action={submit}
      onSubmit={(event) => {
        event.preventDefault();
        const typed = new FormData(event.currentTarget);
        startTransition(() => submit(typed));
      }}
      className="flex flex-col gap-4"
      aria-label="Sign in"
    >
      <Field label="Sign-in name" name="name" autoComplete="username" autoCapitalize="none" />
      <Field label="Password" name="password" type="password" autoComplete="current-password" />
      <button className="btn btn-primary self-start" type="submit" aria-disabled={pending}>
        {pending ? "Signing in…" : "Sign in"}
      </button>
      <p role="alert" className={fault ? "border-error bg-error/10 border-l-4 px-3 py-2" : "sr-only"}>
        {fault}
      </p>
    </form>
  );
}
