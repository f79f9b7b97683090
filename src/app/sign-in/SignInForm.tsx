"use client";

import { useActionState } from "react";
import { signIn } from "./actions";
import { Field } from "@/ui/act/Field";

export function SignInForm() {
  const [fault, submit, pending] = useActionState(signIn, null);
  return (
    <form action={submit} className="flex flex-col gap-4" aria-label="Sign in">
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
