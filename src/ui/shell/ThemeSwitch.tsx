"use client";

import { Lightbulb, Moon } from "lucide-react";
import { useState } from "react";

/** Day or night, kept in a cookie so that the server draws the right one at once. */
export function ThemeSwitch({ theme }: { theme: "day" | "night" }) {
  const [shown, setShown] = useState(theme);
  const other = shown === "day" ? "night" : "day";
  return (
    <button
      type="button"
      className="btn btn-ghost btn-square"
      aria-label={`Change to the ${other} theme`}
      title={`Change to the ${other} theme`}
      onClick={() => {
        document.documentElement.dataset.theme = other;
        document.cookie = `lantern_theme=${other}; path=/; max-age=31536000; samesite=strict`;
        setShown(other);
      }}
    >
      {shown === "day" ? <Moon aria-hidden size={18} /> : <Lightbulb aria-hidden size={18} />}
    </button>
  );
}
