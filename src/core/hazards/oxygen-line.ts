/** Published: 29 CFR 1910.134(b) and (d)(2)(iii); UK: kept as the cautious line. From memory. */
export const OXYGEN_LINE_PERCENT = 19.5;
