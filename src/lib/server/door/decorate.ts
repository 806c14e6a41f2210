/** Several property decorators as one; the last is applied first, as if they stood above each other. */
export function applyDecorators(...decorators: PropertyDecorator[]): PropertyDecorator {
	return (target, key) => {
		for (const decorate of decorators.toReversed()) decorate(target, key);
	};
}
