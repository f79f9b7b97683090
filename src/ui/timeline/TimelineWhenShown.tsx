"use client";

import dynamic from "next/dynamic";

/** The planner of a job's day with its charts: fetched by the page that shows it, and not with every page of a job. */
export const TimelineWhenShown = dynamic(() => import("./TimelinePlanner").then((one) => one.TimelinePlanner));
