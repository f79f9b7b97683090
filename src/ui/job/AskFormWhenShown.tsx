"use client";

import dynamic from "next/dynamic";

/** The form of a request, fetched on the one page of a job that changes it: every other would carry it. */
export const AskFormWhenShown = dynamic(() => import("./AskForm").then((one) => one.AskForm));
