/** Whether everything is tried (npm run test:attack), or the part of it that the usual run has time for. */
export const IS_ATTACK = process.env.LANTERN_ATTACK === "1";

/** Tests of an attack take as long as they take. */
export const ATTACK_MS = 3_600_000;
