import { z } from "zod";

/** A figure with what it is of and its unit, as it is typed; an example beside it. */
const figure = (what: string, most: number, above?: 0) => {
  const named = z.number(`${what}: write a number`).max(most, `${what}: too large`);
  return above === undefined ? named.min(0, `${what}: not below 0`) : named.gt(0, `${what}: above 0`);
};

/**
 * What the register knows of a gas instrument. Oxygen and toxics as fractions of the air, what burns of the lower limit.
 * Nothing here has a default: what nobody wrote down is asked for, for a hose of no length is no hose anybody draws through.
 */
export const gasSheetSchema = z.object({
  /** What it reads: oxygen, flammable, and toxic gases by name. */
  reads: z.array(z.string().min(1).max(40)).min(1, "what it reads: name at least one").max(20),
  /** How it senses what burns; null where it does not. */
  burns: z.enum(["catalytic", "infrared"], "how it senses what burns: catalytic or infrared").nullable(),
  /** What burns it was calibrated on; null where nobody wrote it down, which is taken as methane: that corrects the most. */
  calibrated: z.string().min(1).max(40).nullable().default(null),
  /** How far a reading may be off. */
  error: z.object({
    oxygen: figure("how far oxygen may be off, in % of the air, as 0.2", 0.1),
    flammable: figure("how far flammable may be off, in % of the lower limit, as 1", 0.5),
    toxic: figure("how far toxics may be off, in ppm, as 0.5", 0.01),
  }),
  /** Readings inside the band say that there is nothing; null where the maker states none. */
  zero: z.object({
    flammable: figure("the zero band of flammable, in % of the lower limit, as 1", 1).nullable(),
    toxic: figure("the zero band of toxics, in ppm, as 0.5", 0.01).nullable(),
  }),
  hose_m: figure("the hose, in m, as 5", 100),
  bore_m: figure("the hose's bore, in mm, as 4", 0.05, 0),
  pump_m3_s: figure("the pump, in L/min, as 0.5", 1, 0),
  t90_s: figure("the settling time T90, in s, as 30", 600, 0),
});

export type GasSheet = z.output<typeof gasSheetSchema>;
