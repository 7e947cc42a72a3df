/** Lengths come as ticks of 1/8128 in; drawings need them in inches or millimetres. */
export const TICKS_PER_INCH = 8128
export const TICKS_PER_MM = 320
