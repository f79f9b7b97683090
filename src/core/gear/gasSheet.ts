import { z } from "zod";

const fraction = z.number().min(0).max(1);

/**
 * What the register knows of a gas instrument. Oxygen and toxics as fractions of the air, what burns of the lower limit.
 * Nothing here has a default: what nobody wrote down is asked for, for a hose of no length is no hose anybody draws through.
 */
export const gasSheetSchema = z.object({
  /** What it reads: oxygen, flammable, and toxic gases by name. */
  reads: z.array(z.string().min(1).max(40)).min(1).max(20),
  /** How it senses what burns; null where it does not. */
  burns: z.enum(["catalytic", "infrared"]).nullable(),
  /** How far a reading may be off. */
  error: z.object({ oxygen: fraction, flammable: fraction, toxic: fraction }),
  /** Readings inside the band say that there is nothing; null where the maker states none. */
  zero: z.object({ flammable: fraction.nullable(), toxic: fraction.nullable() }),
  hose_m: z.number().min(0).max(100),
  bore_m: z.number().gt(0).max(0.05),
  pump_m3_s: z.number().gt(0).max(1),
  t90_s: z.number().gt(0).max(600),
});

export type GasSheet = z.output<typeof gasSheetSchema>;
