export * from './accounts.ts';
export * from './audit.ts';
export * from './faults.ts';
export * from './filters.ts';
export * from './hazards.ts';
export * from './inspection.ts';
export * from './register.ts';
export * from './substances.ts';
