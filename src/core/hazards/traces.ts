import { SIMPLE_ASPHYXIANTS, TRACE_PPM } from '../data/asphyxiants.ts';
import type { Contaminant } from './facts.ts';

/** Whether a contaminant is of those that take the place of air. */
const asphyxiant = (c: Contaminant): boolean => SIMPLE_ASPHYXIANTS.has(c.substance?.key ?? '');

/** Whether it takes the place of air, and there is more than a trace of it, or nobody knows. */
export const displaces = (c: Contaminant): boolean =>
	asphyxiant(c) && (c.peakPpm ?? Infinity) >= TRACE_PPM;

/** A gas that harms only by taking the place of air, and of which there is too little for that. */
export const traceOnly = (c: Contaminant): boolean =>
	asphyxiant(c) && !displaces(c) && (c.ratio ?? 0) <= 1;
