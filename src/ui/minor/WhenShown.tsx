"use client";

import dynamic from "next/dynamic";

/** The forms of the short route, fetched where one is shown: few jobs have them, and every page of a job would carry them. */
export const BeginAlone = dynamic(() => import("./BeginAlone").then((one) => one.BeginAlone));
export const EndAlone = dynamic(() => import("./EndAlone").then((one) => one.EndAlone));
