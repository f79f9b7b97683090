import { playWholeDays } from "../support/day/wholeDays";

playWholeDays(1);
