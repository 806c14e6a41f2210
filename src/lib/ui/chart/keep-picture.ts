const KEPT = [
	'fill',
	'stroke',
	'stroke-width',
	'stroke-dasharray',
	'opacity',
	'font-family',
	'font-size',
	'font-weight',
	'text-anchor',
];

/** A chart as an SVG file of its own: what the page's style says of it is written into it. */
export function svgText(svg: SVGSVGElement): string {
	const copy = svg.cloneNode(true) as SVGSVGElement;
	const originals = [svg, ...svg.querySelectorAll<SVGElement>('*')];
	[copy, ...copy.querySelectorAll<SVGElement>('*')].forEach((element, i) => {
		const style = getComputedStyle(originals[i]!);
		for (const name of KEPT) element.setAttribute(name, style.getPropertyValue(name));
		element.removeAttribute('class');
		element.removeAttribute('tabindex');
	});
	const { width, height } = svg.getBoundingClientRect();
	copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
	copy.setAttribute('width', String(width));
	copy.setAttribute('height', String(height));
	const ground = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
	ground.setAttribute('width', '100%');
	ground.setAttribute('height', '100%');
	ground.setAttribute('fill', getComputedStyle(document.body).backgroundColor);
	copy.prepend(ground);
	return new XMLSerializer().serializeToString(copy);
}
