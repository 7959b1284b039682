import { SIMPLE_ASPHYXIANTS, TRACE_PPM } from '../data/asphyxiants.ts';
import type { Contaminant } from './facts.ts';

/** So much of its limit is a trace, which may pass a filter that does not hold it. Common practice. */
export const TRACE_RATIO = 0.1;

/** Whether a contaminant is of those that take the place of air. */
export const takesThePlaceOfAir = (c: Contaminant): boolean =>
	SIMPLE_ASPHYXIANTS.has(c.substance?.key ?? '');

/** Whether it takes the place of air, and there is more than a trace of it, or nobody knows. */
export const displaces = (c: Contaminant): boolean =>
	takesThePlaceOfAir(c) && (c.peakPpm ?? Infinity) >= TRACE_PPM;

/** A gas that harms only by taking the place of air, and of which there is too little for that. */
export const traceOnly = (c: Contaminant): boolean =>
	takesThePlaceOfAir(c) && !displaces(c) && (c.ratio ?? 0) <= 1;

/** Whether it was entered as nothing at all. */
export const isNone = (c: Contaminant): boolean =>
	c.concentration?.value === 0 && !(c.peakPpm && c.peakPpm > 0) && !c.shortRatio;
