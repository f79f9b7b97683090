"use client";

import { enGB } from "react-day-picker/locale";
import { DayPicker } from "react-day-picker";
import { useEffect, useRef, useState } from "react";
import type { WallTime } from "../../core/units/whenText";

type Props = Readonly<{
  at: WallTime;
  dayOnly: boolean;
  onPick: (at: WallTime) => void;
  onClose: () => void;
}>;

const two = (n: number) => String(n).padStart(2, "0");
const HOURS = Array.from({ length: 24 }, (_, hour) => two(hour));
const MINUTES = Array.from({ length: 12 }, (_, five) => two(five * 5));

/** A month to touch a day in, and the hour and minute in 24 hours. Nothing is sent by it: it only writes into its field. */
export default function WhenCalendar({ at, dayOnly, onPick, onClose }: Props) {
  const panel = useRef<HTMLDivElement>(null);
  const [date, setDate] = useState(at.date);
  const [time, setTime] = useState(at.time ?? "08:00");
  const [hour = "08", minute = "00"] = time.split(":");
  useEffect(() => panel.current?.querySelector<HTMLElement>("button, select")?.focus(), []);
  const pick = (next: Partial<{ date: string; time: string }>) => {
    const now = { date, time, ...next };
    setDate(now.date);
    setTime(now.time);
    onPick({ date: now.date, time: dayOnly ? null : now.time });
  };
  const [year = 2026, month = 1, day = 1] = date.split("-").map(Number);
  const chosen = new Date(year, month - 1, day);
  return (
    <div
      ref={panel}
      role="dialog"
      aria-label="Calendar"
      className="bg-base-100 border-base-content when absolute top-full left-0 z-30 mt-1 rounded-md border-2 p-3 shadow-lg"
      onKeyDown={(event) => {
        if (event.key === "Escape") onClose();
      }}
    >
      <DayPicker
        mode="single"
        required
        locale={enGB}
        weekStartsOn={1}
        showOutsideDays
        selected={chosen}
        defaultMonth={chosen}
        onSelect={(next: Date) =>
          pick({ date: `${next.getFullYear()}-${two(next.getMonth() + 1)}-${two(next.getDate())}` })
        }
      />
      <div className="mt-2 flex items-end gap-2">
        {!dayOnly && (
          <>
            <label className="flex flex-col gap-1 text-sm">
              <span>Hour</span>
              <select
                className="select num w-20"
                value={hour}
                onChange={(event) => pick({ time: `${event.target.value}:${minute}` })}
              >
                {HOURS.map((one) => (
                  <option key={one}>{one}</option>
                ))}
              </select>
            </label>
            <label className="flex flex-col gap-1 text-sm">
              <span>Minute</span>
              <select
                className="select num w-20"
                value={minute}
                onChange={(event) => pick({ time: `${hour}:${event.target.value}` })}
              >
                {[...new Set([...MINUTES, minute])].sort().map((one) => (
                  <option key={one}>{one}</option>
                ))}
              </select>
            </label>
          </>
        )}
        <button type="button" className="btn btn-primary ml-auto" onClick={onClose}>
          That is it
        </button>
      </div>
    </div>
  );
}
