import type { ServiceClass } from '$core/pages/board';

/** Classes of service as they are chosen. */
export const CLASSES: readonly { value: ServiceClass; name: string }[] = [
	{ value: 'expedite', name: 'Expedite' },
	{ value: 'fixed', name: 'Fixed date' },
	{ value: 'standard', name: 'Standard' },
	{ value: 'background', name: 'Background' },
];

/** What a class is called. */
export const className = (of: ServiceClass): string => CLASSES.find(({ value }) => value === of)!.name;
